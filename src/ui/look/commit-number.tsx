'use client';
import { NumberInput, type NumberInputProps } from '@mantine/core';

type Props = Omit<NumberInputProps, 'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown' | 'key'> & { value: number | undefined; onCommit: (value: number | undefined) => void };

/** A number that is taken when the field is left or Enter is pressed, never while it is half typed; entering the field selects it, to be typed over. An emptied field is no number. */
export function CommitNumber({ value, onCommit, ...rest }: Props) {
  const commit = (text: string) => {
    const v = text.trim() === '' ? undefined : Number.parseFloat(text.replace(/,/g, ''));
    if (v === value || (v !== undefined && (Number.isNaN(v) || v < Number(rest.min ?? -Infinity) || v > Number(rest.max ?? Infinity)))) return;
    onCommit(v);
  };
  return <NumberInput size="xs" selectAllOnFocus {...rest} key={String(value)} defaultValue={value ?? ''} onBlur={(e) => commit(e.currentTarget.value)} onKeyDown={(e) => { if (e.key === 'Enter') commit(e.currentTarget.value); }} />;
}
