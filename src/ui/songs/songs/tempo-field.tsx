import {} from '@mantine/core';
import { useState } from 'react';
import type { Section } from '../../../core/rig/schema';
import { CommitText } from '../../look/commit-text';

export const tempoText = (tempos: Section['tempos']): string =>
  (tempos ?? []).map((t) => (t.bar === 1 ? String(t.bpm) : `${t.bpm}@${t.bar}`)).join(' ');

/** Tempo changes of a section as they are written: "66", or "66 72@5" for another from its fifth bar. */
export function TempoField({
  section,
  going,
  onChange,
}: {
  section: Section;
  going: number;
  onChange: (tempos: Section['tempos']) => void;
}) {
  const [wrong, setWrong] = useState(false);
  const read = (text: string): boolean => {
    const parts = text
      .trim()
      .split(/\s+/)
      .filter(Boolean)
      .map((t) => /^(\d+(?:\.\d+)?)(?:@(\d+))?$/.exec(t));
    const tempos = parts.flatMap((m) => (m ? [{ bar: Number(m[2] ?? 1), bpm: Number(m[1]) }] : []));
    const fine =
      parts.every((m) => m !== null) &&
      tempos.every((t) => t.bpm >= 20 && t.bpm <= 400 && t.bar >= 1 && t.bar <= section.bars);
    setWrong(!fine);
    if (fine) onChange(tempos.length ? tempos : undefined);
    return fine;
  };
  return (
    <CommitText
      w={84}
      aria-label={`Tempo of ${section.name}`}
      placeholder={String(going)}
      title="66, or 66 72@5 for another tempo from the fifth bar"
      error={wrong && '66 or 72@5'}
      value={tempoText(section.tempos)}
      onCommit={(text = '') => read(text)}
    />
  );
}
