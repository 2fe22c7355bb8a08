'use client';
import { TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Parameter } from '../../core/kinds';

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
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const problem = parameter.problem(text);
  const commit = () => !problem && text.trim() !== value && onCommit(text.trim());
  return (
    <TextInput
      size="xs"
      className="text-setting-textinput"
      label={parameter.label}
      description={hint}
      value={text}
      error={problem}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') commit();
        if (e.key === 'Escape') setText(value);
      }}
    />
  );
}
