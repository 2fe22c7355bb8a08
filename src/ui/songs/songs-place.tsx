'use client';
import { type Parts, Tabs } from '../look/tabs';
import { ControllerView } from './controller-view';
import { DelaysView } from './delays-view';
import { ProgramMapView } from './program-map-view';
import { SetsView } from './sets-view';
import { SongsView } from './songs-view';
import { StandInView } from './stand-in-view';

const PARTS: Parts = {
  songs: { label: 'Songs', view: SongsView },
  sets: { label: 'Sets', view: SetsView },
  delays: { label: 'Times', view: DelaysView },
  map: { label: 'Program map', view: ProgramMapView },
  controller: { label: 'Controller', view: ControllerView },
  instead: { label: 'Stand-ins', view: StandInView },
};

/** What is played, in which order, and what that asks of the rig. */
export const SongsPlace = () => <Tabs parts={PARTS} />;
