'use client';
import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import { later } from '../look/later';
import type { PlaceId } from './place-list';

/** Each place is a script of its own: what is open comes first, the others later. */
const VIEWS: { [P in PlaceId]: ComponentType } = {
  brief: dynamic(later(() => import('../brief/brief-view').then((m) => m.BriefView))),
  signal: dynamic(later(() => import('../signal/view/signal-view').then((m) => m.SignalView))),
  sounds: dynamic(later(() => import('../sounds/sounds-view').then((m) => m.SoundsView))),
  control: dynamic(later(() => import('../control/control-view').then((m) => m.ControlView))),
  songs: dynamic(later(() => import('../songs/songs-place').then((m) => m.SongsPlace))),
  build: dynamic(later(() => import('../build/build-view').then((m) => m.BuildView))),
  show: dynamic(later(() => import('../show/show-place').then((m) => m.ShowPlace))),
  history: dynamic(later(() => import('../history/history-view').then((m) => m.HistoryView))),
};

/** The view of a place. */
export function Place({ id }: { id: PlaceId }) {
  const View = VIEWS[id];
  return <View />;
}
