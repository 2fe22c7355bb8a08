import { at, sure } from '../../../core/outcome';
import type { Section, Song } from '../../../core/rig/schema';
import { cueSheet, timelineOf } from '../../../core/songs';
import { useDocument } from '../../store/use-rig';
import { SectionRow } from './section-row';

/** The sections of a song in order: where each begins, its sound, its tempo and its programs. */
export function SectionsTable({
  song,
  onChange,
}: {
  song: Song;
  onChange: (sections: Section[]) => void;
}) {
  const rig = useDocument();
  const cues = cueSheet(rig, song);
  const line = timelineOf(song);
  const names = [...new Map(cues.flatMap((c) => c.shown.map((a) => [a.device, a.name] as const)))];
  const move = (i: number, by: number) => {
    const next = [...song.sections];
    const [taken] = next.splice(i, 1);
    next.splice(i + by, 0, sure(taken));
    onChange(next);
  };
  return (
    <table className="sheet-table figures common-gap-6" data-table="sections">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Time</th>
          <th>Section</th>
          <th>Bars</th>
          <th>Meter</th>
          <th>Sound</th>
          <th>Tempo from here</th>
          <th>
            Programs shown
            <div className="faint shown-by">{names.map(([, name]) => name).join(' · ')}</div>
          </th>
          <th>Notes</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {song.sections.map((s, i) => (
          <SectionRow
            key={s.id}
            section={s}
            i={i}
            cue={at(cues, i)}
            shows={names.map(([id]) => id)}
            bpm={at(line.sections, i).bpm}
            meter={song.meter}
            first={i === 0}
            last={i === song.sections.length - 1}
            onChange={(change) =>
              onChange(song.sections.map((x) => (x === s ? { ...x, ...change } : x)))
            }
            onMove={(by) => move(i, by)}
            onRemove={() => onChange(song.sections.filter((x) => x !== s))}
          />
        ))}
      </tbody>
    </table>
  );
}
