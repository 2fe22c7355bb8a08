'use client';
import { useEffect, useState } from 'react';
import { sectionScene } from '../../../core/control/scene';
import type { Rig } from '../../../core/rig';
import { stopsOf } from './stops';

const keyOf = (rig: string, set: string) => `yantrel place ${rig} ${set}`;

function read(key: string): number {
  try {
    return Number(localStorage.getItem(key) ?? 0) || 0;
  } catch {
    return 0;
  }
}

function write(key: string, at: number): void {
  try {
    localStorage.setItem(key, String(at));
  } catch {
    // It begins at the front after a reload.
  }
}

/**
 * Where one is in a set, kept in this browser through a reload. A set list that stands in for the
 * tablet, in another window of this browser, moves it on, too.
 */
export function usePlaceInSet(
  rig: string,
  set: string,
  most: number,
): [number, (to: number) => void] {
  const key = keyOf(rig, set);
  const [at, setAt] = useState(() => read(key));
  useEffect(() => {
    // Told by the browser in every window but the one that wrote.
    const moved = (e: StorageEvent) => e.key === key && setAt(read(key));
    window.addEventListener('storage', moved);
    return () => window.removeEventListener('storage', moved);
  }, [key]);
  const go = (to: number) => {
    const next = Math.max(0, Math.min(most, to));
    setAt(next);
    write(key, next);
  };
  return [Math.min(at, most), go];
}

/** Moves the place in a set to the n-th section with a sound, counted from 0: what a stand-in calls. */
export function callPlace(rig: Rig, setId: string | null, n: number): void {
  const set = rig.sets?.find((s) => s.id === setId);
  if (!set) return;
  const played = stopsOf(rig, set).flatMap(({ song, section }, at) =>
    song && section && sectionScene(rig, song, section.id) ? [at] : [],
  );
  const at = played[n];
  if (at !== undefined) write(keyOf(rig.id, set.id), at);
}
