'use client';
import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import { laterPart } from '../look/later';
import type { PlaceId } from './place-list';

/** Each place is a script of its own: what is open comes first, the others later. */
const VIEWS: { [P in PlaceId]: ComponentType } = {
  brief: dynamic(laterPart('brief', () => import('../brief/brief-view').then((m) => m.BriefView))),
  signal: dynamic(
    laterPart('signal', () => import('../signal/view/signal-view').then((m) => m.SignalView)),
  ),
  sounds: dynamic(
    laterPart('sounds', () => import('../sounds/sounds-view').then((m) => m.SoundsView)),
  ),
  control: dynamic(
    laterPart('control', () => import('../control/control-view').then((m) => m.ControlView)),
  ),
  songs: dynamic(
    laterPart('songs', () => import('../songs/songs-place').then((m) => m.SongsPlace)),
  ),
  build: dynamic(laterPart('build', () => import('../build/build-view').then((m) => m.BuildView))),
  show: dynamic(laterPart('show', () => import('../show/show-place').then((m) => m.ShowPlace))),
  history: dynamic(
    laterPart('history', () => import('../history/history-view').then((m) => m.HistoryView)),
  ),
};

/** The view of a place. */
export function Place({ id }: { id: PlaceId }) {
  const View = VIEWS[id];
  return <View />;
}
