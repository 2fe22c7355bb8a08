import { Button, Checkbox, Group, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import type { Song } from '../../../core/rig/schema';
import { pageChanges, pagesFor } from '../../../core/songs';
import { useDocument } from '../../store/use-rig';

/** Switch pages of a song, as strips at true size. */
export function Pages() {
  const rig = useDocument();
  const songs = rig.songs ?? [];
  const [songId, setSongId] = useState<string | null>(null);
  const [switches, setSwitches] = useState<number | string>(
    rig.devices.some((d) => d.kind === 'foot-controller') ? 8 : 6,
  );
  const [pitch, setPitch] = useState<number | string>(52);
  const [tall, setTall] = useState<number | string>(12);
  const [all, setAll] = useState(false);
  const n = Math.max(1, Math.min(24, Number(switches) || 1));
  const [wide, high] = [
    Math.max(10, Math.min(200, Number(pitch) || 52)),
    Math.max(5, Math.min(60, Number(tall) || 12)),
  ];
  const song = songs.find((s) => s.id === songId) ?? songs[0];
  // About two letters fit into 5 mm at a hand's height.
  const letters = Math.max(4, Math.floor((wide / 5) * 2));
  const shown = all ? songs : song ? [song] : [];
  return (
    <>
      <h3 className="pages-gap">Pages of switches, label strips at true size</h3>
      <Group gap={8} align="end" className="no-print">
        {songs.length > 0 && (
          <Select
            size="xs"
            w={220}
            searchable
            label="Song"
            data={songs.map((s) => ({ value: s.id, label: s.title }))}
            value={song?.id ?? null}
            allowDeselect={false}
            onChange={setSongId}
          />
        )}
        <NumberInput
          size="xs"
          w={110}
          label="Switches in a row"
          min={1}
          max={24}
          value={switches}
          onChange={setSwitches}
        />
        <NumberInput
          size="xs"
          w={130}
          label="Between switches, mm"
          min={10}
          max={200}
          value={pitch}
          onChange={setPitch}
        />
        <NumberInput
          size="xs"
          w={110}
          label="Strip height, mm"
          min={5}
          max={60}
          value={tall}
          onChange={setTall}
        />
        <Checkbox
          size="xs"
          label="all songs"
          checked={all}
          onChange={(e) => setAll(e.currentTarget.checked)}
        />
        <Button size="xs" variant="default" onClick={() => window.print()}>
          Print
        </Button>
      </Group>
      <Strips songs={shown.length ? shown : [undefined]} {...{ n, letters, wide, high }} />
      <p className="faint common-text-2">
        Print at 100 %, without fitting to the page: each strip is {n * wide} mm long. Names are
        shortened to {letters} letters.
      </p>
    </>
  );
}

const timesWords = (n: number): string => (n === 1 ? 'once' : `${n} times`);

/** The pages of each song as strips to cut out: `wide` between switches and `high`, in mm. */
function Strips({
  songs,
  n,
  letters,
  wide,
  high,
}: {
  songs: readonly (Song | undefined)[];
  n: number;
  letters: number;
  wide: number;
  high: number;
}) {
  const rig = useDocument();
  return (
    <div className="strips common-gap-3">
      {songs.map((s) =>
        pagesFor(rig, s?.id ?? '', n, letters).map((page, i, pages) => (
          <div key={`${s?.id ?? 'rig'} ${i}`} data-strip={s?.id ?? 'rig'}>
            <div className="common-text-2">
              {s?.title ?? rig.name}
              {pages.length > 1 ? `, page ${i + 1} of ${pages.length}` : ''}
              {s && i === 0 && pages.length > 1
                ? `; the song changes pages ${timesWords(pageChanges(rig, s, pages))}`
                : ''}
            </div>
            <div className="strip" style={{ height: `${high}mm` }}>
              {Array.from({ length: n }, (_, k) => (
                <div
                  key={k}
                  data-pad-label
                  style={{ width: `${wide}mm`, fontSize: `${Math.min(high * 0.42, 6)}mm` }}
                >
                  {page[k]?.label ?? ''}
                </div>
              ))}
            </div>
          </div>
        )),
      )}
    </div>
  );
}
