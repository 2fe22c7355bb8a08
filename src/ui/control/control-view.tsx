'use client';
import dynamic from 'next/dynamic';
import { laterPart } from '../look/later';
import { Tabs, type Views } from '../look/tabs';

// Charts are large; they are fetched when the part that draws them is opened.
const ReachView = dynamic(
  laterPart('reach', () => import('./reach-view').then((m) => m.ReachView)),
  {
    loading: () => <p className="book-view-box">Drawing the sweeps …</p>,
  },
);

// Each part is a script of its own.
const ControlsEditor = dynamic(
  laterPart('controls', () => import('./controls/controls-editor').then((m) => m.ControlsEditor)),
);
const PressesTable = dynamic(
  laterPart('presses', () => import('./presses-table').then((m) => m.PressesTable)),
);
const MidiWiring = dynamic(
  laterPart('midi wiring', () => import('./wiring/midi-wiring').then((m) => m.MidiWiring)),
);
const NumbersView = dynamic(
  laterPart('numbers', () => import('./numbers/numbers-view').then((m) => m.NumbersView)),
);
const BusView = dynamic(laterPart('bus', () => import('./bus/bus-view').then((m) => m.BusView)));
const RehearseView = dynamic(
  laterPart('rehearse', () => import('./rehearse/rehearse-view').then((m) => m.RehearseView)),
);

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
