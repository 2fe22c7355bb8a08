'use client';
import dynamic from 'next/dynamic';
import { laterPart } from '../look/later';
import { Tabs, type Views } from '../look/tabs';
import { ArrivalsTable } from './arrivals';
import { CompareSounds } from './compare-sounds';
import { SoundMatrix } from './matrix';
import { SoundList } from './sound-list';

// Charts are large; they are fetched when the part that draws them is opened.
const GainLadder = dynamic(
  laterPart('ladder', () => import('./gain-ladder').then((m) => m.GainLadder)),
  {
    loading: () => <p className="book-view-box">Drawing the ladder …</p>,
  },
);

const VIEWS: Views<'sounds'> = {
  matrix: SoundMatrix,
  arrivals: ArrivalsTable,
  ladder: GainLadder,
  compare: CompareSounds,
  list: SoundList,
};

/** Everything about the sounds of a rig. */
export const SoundsView = () => <Tabs place="sounds" views={VIEWS} />;
