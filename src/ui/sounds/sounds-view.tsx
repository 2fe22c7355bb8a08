'use client';
import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { ArrivalsTable } from './arrivals';
import { CompareSounds } from './compare-sounds';
import { GainLadder } from './gain-ladder';
import { SoundMatrix } from './matrix';
import { SoundList } from './sound-list';

const PARTS = {
  matrix: { label: 'Devices by sounds', view: SoundMatrix },
  arrivals: { label: 'What arrives', view: ArrivalsTable },
  ladder: { label: 'Gain ladder', view: GainLadder },
  compare: { label: 'Compare two', view: CompareSounds },
  list: { label: 'Names and order', view: SoundList },
} as const;
type Part = keyof typeof PARTS;

/** Everything about the sounds of a rig. */
export function SoundsView() {
  const [part, setPart] = useState<Part>('matrix');
  const View = PARTS[part].view;
  return (
    <div className="sounds-view-columns">
      <div className="sounds-view-box">
        <SegmentedControl
          size="xs"
          value={part}
          onChange={(v) => setPart(v as Part)}
          data={Object.entries(PARTS).map(([value, p]) => ({ value, label: p.label }))}
        />
      </div>
      <View />
    </div>
  );
}
