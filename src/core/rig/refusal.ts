/** Why an edit cannot be done, in words; nothing where it was done. Edits return it instead of throwing. */
export type Refusal = string | undefined | void;
