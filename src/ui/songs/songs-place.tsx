'use client';
import dynamic from 'next/dynamic';
import { laterPart } from '../look/later';
import { Tabs, type Views } from '../look/tabs';

// Each part is a script of its own.
const SongsView = dynamic(
  laterPart('songs part', () => import('./songs/songs-view').then((m) => m.SongsView)),
);
const SetsView = dynamic(laterPart('sets', () => import('./sets-view').then((m) => m.SetsView)));
const DelaysView = dynamic(
  laterPart('delays', () => import('./delays/delays-view').then((m) => m.DelaysView)),
);
const ProgramMapView = dynamic(
  laterPart('map', () => import('./program-map-view').then((m) => m.ProgramMapView)),
);
const ControllerView = dynamic(
  laterPart('controller', () =>
    import('./controller/controller-view').then((m) => m.ControllerView),
  ),
);
const StandInView = dynamic(
  laterPart('instead', () => import('./stand-in-view').then((m) => m.StandInView)),
);

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
