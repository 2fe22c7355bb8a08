'use client';
import { Textarea, type TextareaProps, TextInput, type TextInputProps } from '@mantine/core';
import { useDraft } from './use-draft';

interface Commits {
  value: string | undefined;
  /** Given what was typed, cut to its words; nothing where the field was emptied. `false`: not taken. */
  onCommit: (value: string | undefined) => unknown;
  /** A field that must say something shows what holds again when it is emptied. */
  needed?: boolean;
}

type Taken = 'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown' | 'key';

const useTyped = ({ value = '', onCommit, needed }: Commits) =>
  useDraft(value, (text) => {
    const words = text.trim();
    return words !== value && (words || !needed) ? onCommit(words || undefined) : undefined;
  });

/** A line of text that is taken when the field is left or Enter is pressed, never while half typed. */
export function CommitText({
  value,
  onCommit,
  needed,
  ...rest
}: Commits & Omit<TextInputProps, Taken>) {
  const { text, said, onType, commit, onKeyDown } = useTyped({ value, onCommit, needed });
  return (
    <TextInput
      size="xs"
      {...rest}
      value={text}
      {...said}
      onChange={(e) => onType(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
    />
  );
}

/** Some lines of text, taken when the field is left. */
export function CommitLines({ value, onCommit, ...rest }: Commits & Omit<TextareaProps, Taken>) {
  const { text, said, onType, commit } = useTyped({ value, onCommit });
  return (
    <Textarea
      size="xs"
      autosize
      {...rest}
      value={text}
      {...said}
      onChange={(e) => onType(e.currentTarget.value)}
      onBlur={commit}
    />
  );
}
