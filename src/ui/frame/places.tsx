'use client';
import type { ComponentType } from 'react';
import { BriefView } from '../brief/brief-view';
import { BuildView } from '../build/build-view';
import { ControlView } from '../control/control-view';
import { HistoryView } from '../history/history-view';
import { ShowPlace } from '../show/show-place';
import { SignalView } from '../signal/view/signal-view';
import { SongsPlace } from '../songs/songs-place';
import { SoundsView } from '../sounds/sounds-view';
import type { PlaceId } from './place-list';

const VIEWS: { [P in PlaceId]: ComponentType } = {
  brief: BriefView,
  signal: SignalView,
  sounds: SoundsView,
  control: ControlView,
  songs: SongsPlace,
  build: BuildView,
  show: ShowPlace,
  history: HistoryView,
};

/** The view of a place. */
export function Place({ id }: { id: PlaceId }) {
  const View = VIEWS[id];
  return <View />;
}
