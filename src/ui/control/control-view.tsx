'use client';
import { type Parts, Tabs } from '../look/tabs';
import { BusView } from './bus-view';
import { ControlsEditor } from './controls-editor';
import { MidiWiring } from './midi-wiring';
import { NumbersView } from './numbers-view';
import { PressesTable } from './presses-table';
import { ReachView } from './reach-view';
import { RehearseView } from './rehearse-view';

const PARTS: Parts = {
  controls: { label: 'Controls', view: ControlsEditor },
  reach: { label: 'Reach and sweeps', view: ReachView },
  presses: { label: 'Presses', view: PressesTable },
  wiring: { label: 'MIDI wiring', view: MidiWiring },
  numbers: { label: 'Numbers', view: NumbersView },
  bus: { label: 'Bus', view: BusView },
  rehearse: { label: 'Rehearse', view: RehearseView },
};

/** Everything that a foot, a hand or a message moves. */
export const ControlView = () => <Tabs parts={PARTS} />;
