'use client';
import { TextInput } from '@mantine/core';
import type { Parameter } from '../../core/kinds';
import { useDraft } from '../look/use-draft';

/**
 * A written setting (the order of a switcher's loops): what is wrong with it is said while it is
 * typed, and only a good one is kept.
 */
export function TextSetting({
  parameter,
  value,
  hint,
  onCommit,
}: {
  parameter: Extract<Parameter, { type: 'text' }>;
  value: string;
  hint?: string;
  onCommit: (value: string) => void;
}) {
  const { text, said, onType, commit, onKeyDown } = useDraft(value, (typed) =>
    parameter.problem(typed) ? false : onCommit(typed.trim()),
  );
  return (
    <TextInput
      size="xs"
      className="text-setting-textinput"
      label={parameter.label}
      description={hint}
      {...said}
      value={text}
      error={parameter.problem(text)}
      onChange={(e) => onType(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
    />
  );
}
