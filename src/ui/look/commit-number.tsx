'use client';
import { NumberInput, type NumberInputProps } from '@mantine/core';
import { useDraft } from './use-draft';

type Props = Omit<
  NumberInputProps,
  'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown' | 'key'
> & { value: number | undefined; onCommit: (value: number | undefined) => void };

/**
 * A number that is taken when the field is left or Enter is pressed, never while it is half typed;
 * entering the field selects it, to be typed over. What lies outside the range is taken as its
 * nearest end. An emptied field is no number; where one is needed, or where what was typed is not
 * taken, the field shows again what holds.
 */
export function CommitNumber({ value, onCommit, ...rest }: Props) {
  const take = (text: string) => {
    const typed = text.trim() === '' ? undefined : Number.parseFloat(text.replace(/,/g, ''));
    const v =
      typed === undefined || Number.isNaN(typed)
        ? typed
        : Math.min(Number(rest.max ?? Infinity), Math.max(Number(rest.min ?? -Infinity), typed));
    if (v !== value && !Number.isNaN(v)) onCommit(v);
  };
  const { text, said, onType, commit, onKeyDown } = useDraft(`${value ?? ''}`, take);
  return (
    <NumberInput
      size="xs"
      selectAllOnFocus
      {...rest}
      clampBehavior="none"
      value={text === `${value ?? ''}` ? (value ?? '') : text}
      {...said}
      onChange={(v) => onType(`${v}`)}
      onBlur={commit}
      onKeyDown={onKeyDown}
    />
  );
}
