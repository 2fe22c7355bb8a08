'use client';
import { Tabs, type Views } from '../look/tabs';
import { ControllerView } from './controller/controller-view';
import { DelaysView } from './delays/delays-view';
import { ProgramMapView } from './program-map-view';
import { SetsView } from './sets-view';
import { SongsView } from './songs/songs-view';
import { StandInView } from './stand-in-view';

const VIEWS: Views<'songs'> = {
  songs: SongsView,
  sets: SetsView,
  delays: DelaysView,
  map: ProgramMapView,
  controller: ControllerView,
  instead: StandInView,
};

/** What is played, in which order, and what that asks of the rig. */
export const SongsPlace = () => <Tabs place="songs" views={VIEWS} />;
