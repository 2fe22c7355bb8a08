'use client';
import { Tabs, type Views } from '../look/tabs';
import { BusView } from './bus-view';
import { ControlsEditor } from './controls-editor';
import { MidiWiring } from './midi-wiring';
import { NumbersView } from './numbers-view';
import { PressesTable } from './presses-table';
import { ReachView } from './reach-view';
import { RehearseView } from './rehearse-view';

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
