'use client';
import { TextInput, type TextInputProps } from '@mantine/core';

type Props = Omit<
  TextInputProps,
  'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown' | 'key'
> & {
  value: string | undefined;
  /** Given what was typed, cut to its words; nothing where the field was emptied. */
  onCommit: (value: string | undefined) => void;
  /** A field that must say something keeps what it says when it is emptied. */
  needed?: boolean;
};

/** A line of text that is taken when the field is left or Enter is pressed, never while half typed. */
export function CommitText({ value = '', onCommit, needed, ...rest }: Props) {
  const commit = (field: HTMLInputElement) => {
    const typed = field.value.trim();
    if (typed === value) return;
    if (needed && !typed) field.value = value;
    else onCommit(typed || undefined);
  };
  return (
    <TextInput
      size="xs"
      {...rest}
      key={value}
      defaultValue={value}
      onBlur={(e) => commit(e.currentTarget)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') commit(e.currentTarget);
      }}
    />
  );
}
