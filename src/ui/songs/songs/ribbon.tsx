import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { Section, Song } from '../../../core/rig/schema';
import { clockTime, timelineOf } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { howMany } from '../../../core/units';

/**
 * The song to scale: each section as wide as it lasts, with its sound and where its tempo changes. The right
 * edge of one is drawn, or moved by arrow keys, to make it longer or shorter.
 */
export function Ribbon({
  song,
  onBars,
}: {
  song: Song;
  /** `going`: the hand that draws it, so that it is one step. */
  onBars: (section: string, bars: number, going?: string) => void;
}) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const line = timelineOf(song);
  const nameOfSound = (id: string) => rig.sounds.find((s) => s.id === id)?.name ?? id;
  return (
    <div className="ribbon" role="group" aria-label={`${song.title} to scale`}>
      {line.sections.map(({ section, startMs, endMs }) => {
        const tempo = section.tempos?.[0]?.bpm;
        return (
          <div
            key={section.id}
            className="ribbon-part"
            data-ribbon={section.id}
            data-now={section.sound === sound}
            style={{ flexGrow: Math.max(1, endMs - startMs) }}
          >
            <button
              type="button"
              className="ribbon-words"
              title={`${section.name}, ${nameOfSound(section.sound)}, ${howMany(section.bars, 'bar')}`}
              onClick={() => setSound(section.sound)}
            >
              <strong>{section.name}</strong>
              <span>{nameOfSound(section.sound)}</span>
              <span className="faint figures">
                {clockTime(startMs)}
                {tempo === undefined ? '' : `, ${tempo} bpm`}
              </span>
            </button>
            <Edge section={section} onBars={onBars} />
          </div>
        );
      })}
    </div>
  );
}

/** The right edge of a section: how long it is. */
function Edge({
  section,
  onBars,
}: {
  section: Section;
  onBars: (section: string, bars: number, going?: string) => void;
}) {
  const drag = useRef<{ x: number; bars: number; perBar: number; going: string } | null>(null);
  const put = (bars: number, going?: string) => {
    const next = Math.min(999, Math.max(1, Math.round(bars)));
    if (next !== section.bars) onBars(section.id, next, going);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, PageUp: 8, PageDown: -8 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    put(section.bars + by);
  };
  const onPointerDown = (e: PointerEvent<HTMLSpanElement>) => {
    const part = e.currentTarget.parentElement;
    if (!part) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    // As it is under the hand now: while it is drawn, the others give way.
    const perBar = part.getBoundingClientRect().width / section.bars;
    drag.current = { x: e.clientX, bars: section.bars, perBar, going: `ribbon ${e.timeStamp}` };
  };
  return (
    <span
      className="ribbon-edge"
      role="slider"
      tabIndex={0}
      aria-label={`Bars of ${section.name}`}
      aria-valuemin={1}
      aria-valuemax={999}
      aria-valuenow={section.bars}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={(e) => {
        const d = drag.current;
        if (d) put(d.bars + (e.clientX - d.x) / d.perBar, d.going);
      }}
      onPointerUp={() => {
        drag.current = null;
      }}
    />
  );
}
