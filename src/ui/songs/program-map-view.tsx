'use client';
import { Button, Group, Select } from '@mantine/core';
import { useState } from 'react';
import type { MidiDevice } from '../../core/midi/setup';
import { at, reasonOf, sure } from '../../core/outcome';
import { nameOf } from '../../core/rig';
import type { Song } from '../../core/rig/schema';
import {
  clockTime,
  cueSheet,
  displayLabels,
  numberSongs,
  programMap,
  sectionScene,
  soundUse,
} from '../../core/songs';
import type { ProgramRow } from '../../core/songs/program-map';
import { useDocument, useRig } from '../store/use-rig';
import { FileMenu } from './file-menu';

/**
 * Song by song: bank and program on every device and what displays read; the cue sheet; and which
 * sounds nobody calls.
 */
export function ProgramMapView() {
  const rig = useDocument();
  const map = programMap(rig);
  const use = soundUse(rig);
  const [songId, setSongId] = useState<string | null>(null);
  const song = rig.songs?.find((s) => s.id === songId) ?? rig.songs?.[0];
  const banked = map.devices.filter((m) => m.bank !== 'none');
  const name = (id: string) => rig.sounds.find((s) => s.id === id)?.name ?? id;
  return (
    <div className="scroll common-box">
      <ProgramFiles banked={banked} />
      {song ? (
        <>
          <h3 className="program-map-view-gap">
            Cue sheet{' '}
            <Select
              size="xs"
              w={240}
              className="program-map-view-select"
              searchable
              aria-label="Song of the cue sheet"
              data={(rig.songs ?? []).map((s) => ({ value: s.id, label: s.title }))}
              value={song.id}
              allowDeselect={false}
              onChange={setSongId}
            />
          </h3>
          <CueTable song={song} />
        </>
      ) : (
        <div className="empty">No songs yet. The map of the sounds is below.</div>
      )}
      <h3 className="program-map-view-gap-2">Program map</h3>
      {map.devices.length === 0 ? (
        <div className="empty">
          No device keeps a program for any sound. Give them numbers under Control, Numbers.
        </div>
      ) : (
        <MapTable map={map} name={name} />
      )}
      <h3 className="program-map-view-gap-2">Sounds in use</h3>
      <p data-unused>
        {use.unused.length ? (
          <>
            No song calls <strong>{use.unused.map(name).join(', ')}</strong>.
          </>
        ) : (
          'Every sound is called by some song.'
        )}{' '}
        {use.bySong.length > 0 && (
          <>
            At most {Math.max(...use.bySong.map((s) => s.sounds.length))} different sounds in one
            song (
            {
              sure(
                sure(rig.songs).find(
                  (s) =>
                    s.id ===
                    at(
                      [...use.bySong].sort((a, b) => b.sounds.length - a.sounds.length),
                      0,
                    ).song,
                ),
              ).title
            }
            ).
          </>
        )}
      </p>
    </div>
  );
}

/** Which program each device has in each sound and section. */
function MapTable({
  map,
  name,
}: {
  map: { devices: MidiDevice[]; sounds: ProgramRow[]; songs: ProgramRow[] };
  name: (id: string) => string;
}) {
  return (
    <table className="sheet-table figures" data-table="program-map">
      <thead>
        <tr>
          <th>Song</th>
          <th>Section</th>
          <th>Sound</th>
          {map.devices.map((m) => (
            <th key={m.device.id}>{m.device.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {[...map.sounds, ...map.songs].map((r, i, all) => (
          <tr key={`${r.song?.id ?? ''} ${r.section ?? ''} ${r.scene.id}`}>
            <td>
              {r.song && all[i - 1]?.song !== r.song ? (
                <strong>{r.song.title}</strong>
              ) : r.song ? (
                ''
              ) : (
                <span className="faint">any</span>
              )}
            </td>
            <td>{r.sectionName ?? ''}</td>
            <td>{name(r.scene.sound.id)}</td>
            {r.at.map((a) => (
              <td key={a.device}>{a.words}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The cue sheet of one song. */
function CueTable({ song }: { song: Song }) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="cues">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Time</th>
          <th>Section</th>
          <th>Bars</th>
          <th>Tempo</th>
          <th>Sound</th>
          <th>Programs shown</th>
          <th>Displays read</th>
          <th>Notes</th>
        </tr>
      </thead>
      <tbody>
        {cueSheet(rig, song).map((c, i) => {
          const scene = sectionScene(rig, song, at(song.sections, i).id);
          return (
            <tr key={at(song.sections, i).id}>
              <td>{c.bar}</td>
              <td>{clockTime(c.atMs)}</td>
              <td>
                <strong>{c.section}</strong>
              </td>
              <td>{c.bars}</td>
              <td>{c.bpm}</td>
              <td>{c.sound}</td>
              <td>{c.programs}</td>
              <td>
                {scene &&
                  displayLabels(rig, song, scene).map((l) => (
                    <div key={l.device}>
                      <span className="faint">{nameOf(rig, l.device)}</span>{' '}
                      <span className="display">{l.lines.join(' / ')}</span>
                    </div>
                  ))}
              </td>
              <td>{c.notes}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The files of the program map and the cues. */
function ProgramFiles({ banked }: { banked: MidiDevice[] }) {
  const rig = useDocument();
  const setNotice = useRig((s) => s.setNotice);
  const edit = useRig((s) => s.edit);
  return (
    <Group gap={8} className="no-print">
      <FileMenu />
      {banked.map((m) =>
        (rig.sets ?? []).slice(0, 3).map((set) => (
          <Button
            key={`${m.device.id} ${set.id}`}
            size="compact-sm"
            variant="default"
            onClick={() => {
              const edits = numberSongs(rig, set, m.device.id);
              if (!edits.ok) setNotice(reasonOf(edits));
              else
                edit(
                  edits.value,
                  `gave each song of ${set.name} a bank of its own on ${m.device.name}`,
                );
            }}
          >
            A bank for each song of {set.name} on {m.device.name}
          </Button>
        )),
      )}
    </Group>
  );
}
