'use client';
import dynamic from 'next/dynamic';
import { Tabs, type Views } from '../look/tabs';
import { BusView } from './bus/bus-view';
import { ControlsEditor } from './controls/controls-editor';
import { MidiWiring } from './wiring/midi-wiring';
import { NumbersView } from './numbers/numbers-view';
import { PressesTable } from './presses-table';
import { RehearseView } from './rehearse/rehearse-view';

// Charts are large; they are fetched when the part that draws them is opened.
const ReachView = dynamic(() => import('./reach-view').then((m) => m.ReachView), {
  loading: () => <p className="book-view-box">Drawing the sweeps …</p>,
});

const VIEWS: Views<'control'> = {
  controls: ControlsEditor,
  reach: ReachView,
  presses: PressesTable,
  wiring: MidiWiring,
  numbers: NumbersView,
  bus: BusView,
  rehearse: RehearseView,
};

/** Everything that a foot, a hand or a message moves. */
export const ControlView = () => <Tabs place="control" views={VIEWS} />;
