'use client';
import {
  ActionIcon,
  Button,
  Checkbox,
  Group,
  NumberInput,
  Select,
  TextInput,
  Tooltip,
} from '@mantine/core';
import { IconCheck, IconTrash, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { type Candidate, freshId } from '../../core/rig';
import { controllerNeeds, judge, pagesFor } from '../../core/songs';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

const SENDS = ['program', 'control', 'clock', 'bend', 'pressure'] as const;

/**
 * What a foot controller has to do for this rig and these songs, candidates held against it, and
 * pages of switches with labels at true size.
 */
export function ControllerView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const candidates = rig.candidates ?? [];
  const needs = controllerNeeds(rig);
  const [room, setRoom] = useState<{ width: number | string; depth: number | string }>({
    width: '',
    depth: '',
  });
  const space =
    Number(room.width) > 0 && Number(room.depth) > 0
      ? { width: Number(room.width), depth: Number(room.depth) }
      : undefined;
  const judged = candidates.map((c) => judge(rig, needs, c, space));
  const save = (list: Candidate[], words?: string) =>
    edit({ edit: 'setCandidates', candidates: list }, words);
  const set = (c: Candidate, change: Partial<Candidate>) =>
    save(candidates.map((x) => (x === c ? { ...x, ...change } : x)));
  const best = [...judged].sort((a, b) => a.misses - b.misses)[0];
  const points = judged[0]?.points.map((p) => p.need) ?? [];
  return (
    <div className="scroll common-box">
      <h3 className="common-gap">What it has to do</h3>
      <ul data-list="needs" className="controller-view-box">
        <li>
          <strong>{needs.switches.count} switches at once</strong>: {needs.switches.sounds} sounds
          {needs.switches.song ? ` in ${needs.switches.song}, more than in any other song` : ''}
          {needs.switches.always.length
            ? `, and always ${needs.switches.always.join(' and ')}`
            : ''}
          .
        </li>
        <li>
          <strong>
            {needs.pedals.count} {needs.pedals.count === 1 ? 'pedal' : 'pedals'}
          </strong>
          {needs.pedals.names.length
            ? `: ${needs.pedals.names.join(', ')}`
            : ': nothing is moved by one'}
          .
        </li>
        {needs.sends.map((s) => (
          <li key={s.message}>
            <strong>
              Sends{' '}
              {s.message === 'control'
                ? 'control changes'
                : s.message === 'program'
                  ? 'programs'
                  : 'clock'}
            </strong>
            : {s.because}.
          </li>
        ))}
        <li>
          <strong>{needs.twoWay.needed ? 'Hears back' : 'Need not hear back'}</strong>:{' '}
          {needs.twoWay.because}.
        </li>
        <li>
          <strong>{needs.letters.count} letters</strong> show the longest name, “
          {needs.letters.longest}”, whole.
        </li>
      </ul>
      <Group gap={8} mt={6} align="end" className="no-print">
        <NumberInput
          size="xs"
          w={190}
          label="Room on the board, wide, mm"
          min={0}
          value={room.width}
          onChange={(width) => setRoom({ ...room, width })}
        />
        <NumberInput
          size="xs"
          w={110}
          label="deep, mm"
          min={0}
          value={room.depth}
          onChange={(depth) => setRoom({ ...room, depth })}
        />
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            save(
              [
                ...candidates,
                {
                  id: freshId(
                    'controller',
                    candidates.map((c) => c.id),
                  ),
                  name: `Controller ${candidates.length + 1}`,
                  switches: 8,
                  pedals: 0,
                  pedalJacks: 1,
                  sends: ['program', 'control'],
                  twoWay: false,
                  labels: 'tape',
                },
              ],
              'added a controller to compare',
            )
          }
        >
          Add a candidate
        </Button>
      </Group>
      {candidates.length === 0 ? (
        <div className="empty common-gap-3">
          Enter the controllers you could get, as their sheets describe them; each is held against
          what is needed.
        </div>
      ) : (
        <table className="sheet-table figures common-gap-3" data-table="candidates">
          <thead>
            <tr>
              <th>Candidate</th>
              {candidates.map((c) => (
                <th key={c.id}>
                  <TextInput
                    size="xs"
                    aria-label="Name of the candidate"
                    key={c.name}
                    defaultValue={c.name}
                    onBlur={(e) =>
                      e.currentTarget.value.trim() &&
                      e.currentTarget.value !== c.name &&
                      set(c, { name: e.currentTarget.value.trim() })
                    }
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Fields
              label="Switches"
              each={candidates}
              cell={(c) => (
                <CommitNumber
                  w={80}
                  aria-label={`Switches of ${c.name}`}
                  min={0}
                  max={64}
                  allowDecimal={false}
                  value={c.switches}
                  onCommit={(v) => set(c, { switches: v ?? 0 })}
                />
              )}
            />
            <Fields
              label="Pedals built in, jacks for more"
              each={candidates}
              cell={(c) => (
                <Group gap={4} wrap="nowrap">
                  <CommitNumber
                    w={64}
                    aria-label={`Pedals of ${c.name}`}
                    min={0}
                    max={8}
                    allowDecimal={false}
                    value={c.pedals}
                    onCommit={(v) => set(c, { pedals: v ?? 0 })}
                  />
                  <CommitNumber
                    w={64}
                    aria-label={`Pedal jacks of ${c.name}`}
                    min={0}
                    max={16}
                    allowDecimal={false}
                    value={c.pedalJacks}
                    onCommit={(v) => set(c, { pedalJacks: v ?? 0 })}
                  />
                </Group>
              )}
            />
            <Fields
              label="Sends"
              each={candidates}
              cell={(c) => (
                <Group gap={8}>
                  {SENDS.map((s) => (
                    <Checkbox
                      key={s}
                      size="xs"
                      label={s}
                      checked={c.sends.includes(s)}
                      onChange={(e) =>
                        set(c, {
                          sends: e.currentTarget.checked
                            ? [...c.sends, s]
                            : c.sends.filter((x) => x !== s),
                        })
                      }
                    />
                  ))}
                </Group>
              )}
            />
            <Fields
              label="Hears back, labels, letters"
              each={candidates}
              cell={(c) => (
                <Group gap={6} wrap="nowrap">
                  <Checkbox
                    size="xs"
                    aria-label={`${c.name} hears back`}
                    checked={c.twoWay ?? false}
                    onChange={(e) => set(c, { twoWay: e.currentTarget.checked })}
                  />
                  <Select
                    size="xs"
                    w={84}
                    aria-label={`Labels of ${c.name}`}
                    data={['screen', 'tape']}
                    value={c.labels ?? null}
                    placeholder="?"
                    onChange={(v) => set(c, { labels: (v as Candidate['labels']) ?? undefined })}
                  />
                  <CommitNumber
                    w={62}
                    aria-label={`Letters of ${c.name}`}
                    min={0}
                    max={80}
                    value={c.letters}
                    onCommit={(letters) => set(c, { letters })}
                  />
                </Group>
              )}
            />
            <Fields
              label="Power, grams, price"
              each={candidates}
              cell={(c) => (
                <Group gap={4} wrap="nowrap">
                  <Select
                    size="xs"
                    w={80}
                    aria-label={`Power of ${c.name}`}
                    data={['usb', 'mains', '9 V', 'battery']}
                    value={c.power ?? null}
                    placeholder="?"
                    onChange={(v) => set(c, { power: (v as Candidate['power']) ?? undefined })}
                  />
                  <CommitNumber
                    w={76}
                    aria-label={`Grams of ${c.name}`}
                    min={0}
                    value={c.grams}
                    onCommit={(grams) => set(c, { grams })}
                  />
                  <CommitNumber
                    w={70}
                    aria-label={`Price of ${c.name}`}
                    min={0}
                    value={c.price}
                    onCommit={(price) => set(c, { price })}
                  />
                </Group>
              )}
            />
            <Fields
              label="Wide and deep, mm"
              each={candidates}
              cell={(c) => (
                <Group gap={4} wrap="nowrap">
                  <CommitNumber
                    w={72}
                    aria-label={`Width of ${c.name}`}
                    min={0}
                    value={c.widthMm}
                    onCommit={(widthMm) => set(c, { widthMm })}
                  />
                  <CommitNumber
                    w={72}
                    aria-label={`Depth of ${c.name}`}
                    min={0}
                    value={c.depthMm}
                    onCommit={(depthMm) => set(c, { depthMm })}
                  />
                </Group>
              )}
            />
            {points.map((need, i) => (
              <tr key={need} data-need={need}>
                <td>
                  <strong>{need}</strong>
                </td>
                {judged.map((j) => {
                  const p = j.points.find((x) => x.need === need) ?? j.points[i];
                  return (
                    <td key={j.candidate}>
                      {p && p.need === need ? (
                        <>
                          <span
                            className="sev"
                            style={{ color: p.met ? 'var(--ink)' : 'var(--fault)' }}
                          >
                            {p.met ? (
                              <IconCheck size={14} aria-label="met" />
                            ) : (
                              <IconX size={14} aria-label="missed" />
                            )}
                          </span>{' '}
                          {p.why}
                        </>
                      ) : (
                        <span className="faint">–</span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr>
              <td>
                <strong>So it</strong>
              </td>
              {judged.map((j) => (
                <td key={j.candidate} data-judged={j.candidate}>
                  <strong>{j.misses === 0 ? 'does it all' : `misses ${j.misses}`}</strong>
                  {j.pages > 1 ? `, ${j.pages} pages in the fullest song` : ''}
                  {j === best && judged.length > 1 ? ' (misses least)' : ''}
                </td>
              ))}
            </tr>
            <tr className="no-print">
              <td />{' '}
              {candidates.map((c) => (
                <td key={c.id}>
                  <Tooltip label="Take out">
                    <ActionIcon
                      size="sm"
                      variant="default"
                      aria-label={`Take ${c.name} out`}
                      onClick={() => save(candidates.filter((x) => x !== c))}
                    >
                      <IconTrash size={14} />
                    </ActionIcon>
                  </Tooltip>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      )}
      <Pages />
    </div>
  );
}

function Fields({
  label,
  each,
  cell,
}: {
  label: string;
  each: Candidate[];
  cell: (c: Candidate) => React.ReactNode;
}) {
  return (
    <tr className="no-print">
      <td>{label}</td>
      {each.map((c) => (
        <td key={c.id}>{cell(c)}</td>
      ))}
    </tr>
  );
}

/** Switch pages of a song, as strips at true size. */
function Pages() {
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
      <div className="strips common-gap-3">
        {(shown.length ? shown : [undefined]).map((s) =>
          pagesFor(rig, s?.id ?? '', n, letters).map((page, i, pages) => (
            <div key={`${s?.id ?? 'rig'} ${i}`} data-strip={s?.id ?? 'rig'}>
              <div className="common-text-2">
                {s?.title ?? rig.name}
                {pages.length > 1 ? `, page ${i + 1} of ${pages.length}` : ''}
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
      <p className="faint common-text-2">
        Print at 100 %, without fitting to the page: each strip is {n * wide} mm long. Names are
        shortened to {letters} letters.
      </p>
    </>
  );
}
