'use client';
import { sure, at as entryAt } from '../../core/outcome';
import { Button, Checkbox, Group, Menu, Progress, Select, TextInput } from '@mantine/core';
import { type KeyboardEvent, useMemo, useState } from 'react';
import {
  BOARD_SIZES,
  boardModel,
  clashWords,
  freePlace,
  judge,
  type LayoutFigures,
  type Model,
  placesNow,
  pressedDevices,
  sizeOf,
  snapped,
  type XY,
} from '../../core/build';
import { boardSvg } from '../../core/formats';
import { SEVERITIES } from '../../core/findings/finding';
import { kindOf } from '../../core/kinds';
import { type Board, type Device, type Edit, freshId, type Rig } from '../../core/rig';
import { fixed, showLength } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { SeverityMark } from '../look/severity';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { DrawingFiles } from './drawing-files';
import { DrawnPlan } from './drawn-plan';
import { JackSpots } from './jack-spots';

const standsOnFloor = (rig: Rig) => (d: Device) =>
  !rig.stage?.spots.some((s) => s.id === d.id) &&
  d.host === undefined &&
  !d.at &&
  !d.rack &&
  sizeOf(d) !== null &&
  ['floor', undefined].includes(d.place) &&
  kindOf(d.kind).job !== 'instrument' &&
  !kindOf(d.kind).destination;

/**
 * The board from above: everything to scale, placed by hand or arranged, with what hits what as it
 * happens.
 */
export function BoardView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const board = rig.boards?.find((b) => b.id === chosen) ?? rig.boards?.[0];
  const add = (size: string) => {
    const found = sure(BOARD_SIZES.find((b) => b.id === size));
    const id = freshId(
      'board',
      [...(rig.boards ?? []), ...(rig.racks ?? []), ...rig.devices].map((x) => x.id),
    );
    if (
      edit({
        edit: 'addBoard',
        board: {
          id,
          name: rig.boards?.length ? `Board ${rig.boards.length + 1}` : 'Pedalboard',
          ...found.board,
        },
      }).ok
    )
      setChosen(id);
  };
  const adding = (
    <Menu>
      <Menu.Target>
        <Button size="xs" variant={board ? 'default' : 'filled'}>
          Add a board
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {BOARD_SIZES.map((b) => (
          <Menu.Item key={b.id} onClick={() => add(b.id)}>
            {b.label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
  if (!board)
    return (
      <div className="empty common-gap-2">
        There is no board yet. Take one in a common size, change its measures as you like, then
        stand the pedals on it: leads, lengths and what hits what follow from that.{' '}
        <div className="common-gap-3">{adding}</div>
      </div>
    );
  return <Bench key={board.id} rig={rig} board={board} onBoard={setChosen} adding={adding} />;
}

function Bench({
  rig,
  board,
  onBoard,
  adding,
}: {
  rig: Rig;
  board: Board;
  onBoard: (id: string | null) => void;
  adding: React.ReactNode;
}) {
  const edit = useRig((s) => s.edit);
  const units = useRig((s) => s.units);
  const [selected, select] = useState<string | null>(null);
  const [moving, setMoving] = useState<{ id: string; to: XY } | null>(null);
  const pressed = useMemo(() => pressedDevices(rig), [rig]);
  const model = useMemo(() => boardModel(rig, board, pressed), [rig, board, pressed]);
  const now = useMemo(() => placesNow(model), [model]);
  const at = useMemo(
    () =>
      moving
        ? now.map((p, i) => (entryAt(model.items, i).device.id === moving.id ? moving.to : p))
        : now,
    [model, now, moving],
  );
  const judged = useMemo(() => judge(model, at), [model, at]);
  const rest = useMemo(() => judge(model, now), [model, now]);
  const svg = useMemo(
    () => boardSvg(rig, board, { selected, at }, model),
    [rig, board, selected, at, model],
  );
  const index = model.items.findIndex((i) => i.device.id === selected);
  const item = model.items[index];
  const loose = rig.devices.filter(standsOnFloor(rig));
  const put = (id: string, change: Partial<NonNullable<Device['at']>>) => {
    const d = sure(rig.devices.find((x) => x.id === id));
    return edit({
      edit: 'placeOnBoard',
      device: id,
      at: { board: board.id, x: 0, y: 0, ...d.at, ...change },
    }).ok;
  };
  const place = (list: readonly Device[]) => {
    const edits: Edit[] = [];
    let on = rig;
    for (const d of list) {
      const trial = boardModel(on, board, pressed, [d.id]);
      const i = trial.items.findIndex((x) => x.device.id === d.id);
      const under = entryAt(trial.items, i).under;
      const to = freePlace(trial, i, placesNow(trial));
      const place_ = {
        board: board.id,
        ...(to ?? { x: board.width + 20, y: 0 }),
        ...(under && { under: true }),
      };
      edits.push({ edit: 'placeOnBoard', device: d.id, at: place_ });
      on = { ...on, devices: on.devices.map((x) => (x.id === d.id ? { ...x, at: place_ } : x)) };
    }
    if (edits.length)
      edit(
        edits,
        edits.length === 1
          ? `placed ${entryAt(list, 0).name} on ${board.name}`
          : `placed ${edits.length} devices on ${board.name}`,
      );
  };
  const onKey = (e: KeyboardEvent) => {
    const step = e.shiftKey ? 1 : 5;
    const move: Record<string, XY> = {
      ArrowLeft: { x: -step, y: 0 },
      ArrowRight: { x: step, y: 0 },
      ArrowUp: { x: 0, y: -step },
      ArrowDown: { x: 0, y: step },
    };
    const turnTo = (n: number) =>
      select(model.items[(index + n + model.items.length) % model.items.length]?.device.id ?? null);
    const key = e.key.toLowerCase();
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === ']' || e.key === '[') turnTo(e.key === ']' ? 1 : -1);
    else if (item && move[e.key])
      put(item.device.id, {
        x: entryAt(now, index).x + move[e.key]!.x,
        y: entryAt(now, index).y + move[e.key]!.y,
      });
    else if (item && key === 'r')
      put(item.device.id, { turn: ((item.turn + 90) % 360) as 0 | 90 | 180 | 270 });
    else if (item && key === 'p') put(item.device.id, { pinned: !item.pinned });
    else if (item && (e.key === 'Delete' || e.key === 'Backspace')) {
      edit({ edit: 'placeOnBoard', device: item.device.id, at: null });
      select(null);
    } else if (e.key === 'Escape') {
      select(null);
      setMoving(null);
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const others = (rig.boards ?? []).length > 1;
  return (
    <div className="board" data-place="board">
      <div className="board-main">
        <Group gap={8} px={14} pb={6} align="end">
          {others && (
            <Select
              size="xs"
              w={170}
              aria-label="Board"
              allowDeselect={false}
              value={board.id}
              data={(rig.boards ?? []).map((b) => ({ value: b.id, label: b.name }))}
              onChange={onBoard}
            />
          )}
          {adding}
          <span className="figures small-print" data-board-sum>
            {showLength(judged.mm / 1000, units.length)} of lead, {judged.crossings}{' '}
            {judged.crossings === 1 ? 'crossing' : 'crossings'},{' '}
            {judged.clashes.length ? `${judged.clashes.length} to put right` : 'nothing hits'}
            {moving
              ? `; before: ${showLength(rest.mm / 1000, units.length)}, ${rest.crossings}, ${rest.clashes.length}`
              : ''}
          </span>
          <DrawingFiles
            name={`${rig.id}-${board.id}`}
            svg={() => boardSvg(rig, board, {}, boardModel(rig, board, pressed))}
          />
        </Group>
        <DrawnPlan
          svg={svg}
          label={
            `${board.name} from above. Square brackets choose, arrows move by 5 mm, with Shift ` +
            'by 1 mm, R turns, P pins, Delete takes off.'
          }
          onPick={select}
          onKey={onKey}
          onDrag={(id, dx, dy, done) => {
            const i = model.items.findIndex((x) => x.device.id === id);
            if (i < 0) return;
            const to = snapped(model, i, now, {
              x: entryAt(now, i).x + dx,
              y: entryAt(now, i).y + dy,
            });
            if (!done) return setMoving({ id, to });
            setMoving(null);
            put(id, { ...to });
          }}
        />
      </div>
      <aside className="board-side scroll">
        {item ? (
          <ItemPanel
            key={`${item.device.id} ${board.id}`}
            item={item}
            onTurn={() =>
              put(item.device.id, { turn: ((item.turn + 90) % 360) as 0 | 90 | 180 | 270 })
            }
            onPin={(pinned) => put(item.device.id, { pinned })}
            onUnder={(under) => put(item.device.id, { under })}
            onOff={() => {
              edit({ edit: 'placeOnBoard', device: item.device.id, at: null });
              select(null);
            }}
            canUnder={(board.under ?? 0) > 0}
          />
        ) : (
          <BoardPanel key={JSON.stringify(board)} board={board} onGone={() => onBoard(null)} />
        )}
        <Clashes model={model} judged={judged} onPick={select} />
        <Tray loose={loose} onPlace={place} />
        <Arrange rig={rig} board={board} loose={loose} />
        <p className="faint common-text-2">
          Drag, or choose and use the keys: arrows 5 mm, Shift 1 mm, R turns, P pins, [ and ] go
          round. A lead runs on the deck where it is free, else below along a rail or edge.
        </p>
      </aside>
    </div>
  );
}

function ItemPanel({
  item,
  onTurn,
  onPin,
  onUnder,
  onOff,
  canUnder,
}: {
  item: Model['items'][number];
  onTurn: () => void;
  onPin: (v: boolean) => void;
  onUnder: (v: boolean) => void;
  onOff: () => void;
  canUnder: boolean;
}) {
  const edit = useRig((s) => s.edit);
  const size = sure(sizeOf(item.device) ?? undefined);
  const field = (key: 'width' | 'depth' | 'height', label: string) => (
    <CommitNumber
      w={84}
      label={label}
      min={5}
      max={3000}
      value={size[key]}
      onCommit={(v) =>
        v !== undefined &&
        edit({ edit: 'setDevice', device: item.device.id, size: { ...size, [key]: v } })
      }
    />
  );
  return (
    <section data-item-panel={item.device.id}>
      <h3 className="common-gap">{item.device.name}</h3>
      <p className="figures item-panel-text">
        {item.device.at
          ? `${item.device.at.x} mm from the left, ${item.device.at.y} mm from the rear ` +
            `edge${item.turn ? `, turned ${item.turn}°` : ''}`
          : ''}
        {item.pressed ? `. Stepped on in ${Math.round(item.pressed * 100)} % of the changes.` : '.'}
      </p>
      <Group gap={6}>
        {field('width', 'Wide, mm')}
        {field('depth', 'Deep, mm')}
        {field('height', 'High, mm')}
      </Group>
      {item.device.size ? (
        <Button
          size="compact-xs"
          variant="default"
          mt={4}
          onClick={() => edit({ edit: 'asUsual', device: item.device.id, what: ['size'] })}
        >
          As usual for its kind
        </Button>
      ) : (
        <p className="faint item-panel-text-2">Usual for its kind. Measure yours.</p>
      )}
      <Group gap={10} my={6}>
        <Button size="compact-xs" variant="default" onClick={onTurn}>
          Turn
        </Button>
        <JackSpots device={item.device} />
        <Checkbox
          size="xs"
          label="Pinned"
          checked={item.pinned}
          onChange={(e) => onPin(e.currentTarget.checked)}
        />
        {canUnder && (
          <Checkbox
            size="xs"
            label="Under the deck"
            checked={item.under}
            onChange={(e) => onUnder(e.currentTarget.checked)}
          />
        )}
        <Button size="compact-xs" variant="default" onClick={onOff}>
          Take off
        </Button>
      </Group>
    </section>
  );
}

/** The board's own measures. */
function BoardPanel({ board, onGone }: { board: Board; onGone: () => void }) {
  const edit = useRig((s) => s.edit);
  const set = (change: Partial<Board>) =>
    edit({ edit: 'setBoard', board: { ...board, ...change } });
  const number = (
    label: string,
    value: number | undefined,
    most: number,
    commit: (v: number) => void,
    w = 84,
  ) => (
    <CommitNumber
      w={w}
      label={label}
      min={0}
      max={most}
      value={value}
      onCommit={(v) => v !== undefined && commit(v)}
    />
  );
  const raised = board.raised?.[0];
  const spread = (count: number): Board['rails'] =>
    Array.from({ length: count }, (_, i) => ({
      y: Math.round(count > 1 ? (i * (board.depth - 40)) / (count - 1) : board.depth / 2 - 20),
      depth: 40,
    }));
  return (
    <section>
      <Group justify="space-between" align="end">
        <TextInput
          size="xs"
          w={180}
          label="Board"
          defaultValue={board.name}
          onBlur={(e) => {
            const v = e.currentTarget.value.trim();
            if (v && v !== board.name) set({ name: v });
          }}
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            if (edit({ edit: 'removeBoard', board: board.id }).ok) onGone();
          }}
        >
          Remove
        </Button>
      </Group>
      <Group gap={6} mt={4}>
        {number('Wide, mm', board.width, 3000, (width) => set({ width }))}
        {number('Deep, mm', board.depth, 1500, (depth) => set({ depth }))}
        {number('Free below', board.under, 300, (under) => set({ under }))}
      </Group>
      <Group gap={6} mt={4}>
        {number('Rails', board.rails.length, 20, (n) => set({ rails: spread(Math.round(n)) }))}
        {number('Raised, deep', raised?.depth ?? 0, 1500, (depth) =>
          set({ raised: depth ? [{ y: 0, by: raised?.by ?? 40, depth }] : undefined }),
        )}
        {number('Raised by', raised?.by ?? 0, 300, (by) =>
          set({
            raised: by
              ? [{ y: 0, depth: raised?.depth ?? Math.round(board.depth * 0.45), by }]
              : undefined,
          }),
        )}
      </Group>
      <Group gap={6} mt={4} align="end">
        {number('Weight, g', board.grams, 1e6, (grams) => set({ grams }))}
        <Select
          size="xs"
          w={120}
          label="Preferred foot"
          allowDeselect={false}
          value={board.foot ?? 'right'}
          data={[
            { value: 'left', label: 'left' },
            { value: 'right', label: 'right' },
          ]}
          onChange={(v) => v && set({ foot: v })}
        />
      </Group>
    </section>
  );
}

function Clashes({
  model,
  judged,
  onPick,
}: {
  model: Model;
  judged: ReturnType<typeof judge>;
  onPick: (id: string) => void;
}) {
  if (!judged.clashes.length) return null;
  const told = judged.clashes
    .map((c) => ({ c, ...clashWords(model, c) }))
    .sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
  return (
    <section data-list="clashes">
      <h3 className="common-gap-4">To put right</h3>
      {told.slice(0, 30).map((t, i) => (
        <button
          key={i}
          type="button"
          className="clash"
          onClick={() => onPick(entryAt(model.items, t.c.a).device.id)}
        >
          <SeverityMark severity={t.severity} /> <strong>{t.what}</strong> {t.why}
        </button>
      ))}
      {told.length > 30 && <p>and {told.length - 30} more</p>}
    </section>
  );
}

function Tray({
  loose,
  onPlace,
}: {
  loose: readonly Device[];
  onPlace: (list: readonly Device[]) => void;
}) {
  if (!loose.length) return null;
  return (
    <section data-tray>
      <Group justify="space-between" mt={10}>
        <h3 className="no-margin">Stand nowhere yet</h3>
        {loose.length > 1 && (
          <Button size="compact-xs" variant="default" onClick={() => onPlace(loose)}>
            Place all {loose.length}
          </Button>
        )}
      </Group>
      {loose.map((d) => (
        <Group key={d.id} gap={6} my={2} wrap="nowrap">
          <span className="tape tray-box">{d.name}</span>
          <span className="faint tray-text">
            {sure(sizeOf(d) ?? undefined).width} by {sure(sizeOf(d) ?? undefined).depth}
          </span>
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Place ${d.name}`}
            onClick={() => onPlace([d])}
          >
            Place
          </Button>
        </Group>
      ))}
    </section>
  );
}

const figuresWords = (f: LayoutFigures, length: 'metric' | 'imperial') =>
  `${showLength(f.metres, length)}, ${fixed(f.pF, 0)} ` +
  (`pF, ${f.crossings} ` +
    (f.crossings === 1 ? 'crossing' : 'crossings') +
    ', ' +
    (f.clashes ? `${f.clashes} to put right` : 'nothing hits'));

/**
 * The optimiser: how far it is, the best so far to take or to wait for, and what it found against
 * how things stand.
 */
function Arrange({ rig, board, loose }: { rig: Rig; board: Board; loose: readonly Device[] }) {
  const edit = useRig((s) => s.edit);
  const units = useRig((s) => s.units);
  const { work, start, cancel, clear } = useWorking('layout');
  const [also, setAlso] = useState(false);
  const [asked, setAsked] = useState<Rig | null>(null);
  const found = work.state === 'done' ? work.answer : null;
  const take = (edits: Edit[]) => {
    if (edit(edits, `arranged ${board.name}`).ok) {
      cancel();
      clear();
    }
  };
  return (
    <section data-arrange>
      <h3 className="common-gap-4">Arrange it</h3>
      <Group gap={8}>
        <Button
          size="xs"
          disabled={work.state === 'working'}
          onClick={() => {
            setAsked(rig);
            start({ rig, board: board.id, add: also ? loose.map((d) => d.id) : [] });
          }}
        >
          Look for a better layout
        </Button>
        {work.state === 'working' && (
          <Button size="xs" variant="default" onClick={cancel}>
            Cancel
          </Button>
        )}
        {loose.length > 0 && (
          <Checkbox
            size="xs"
            label={`with the ${loose.length} that stand nowhere`}
            checked={also}
            onChange={(e) => setAlso(e.currentTarget.checked)}
          />
        )}
      </Group>
      {work.state === 'working' && (
        <div role="status" className="arrange-gap">
          <Progress value={100 * work.share} aria-label="How far it is" />
          <div className="common-text-2">
            {Math.round(100 * work.share)} %: {work.words}
          </div>
          {work.best && asked === rig && (
            <Button
              size="compact-xs"
              variant="default"
              mt={4}
              onClick={() => take(work.best!.edits)}
            >
              Take the best so far
            </Button>
          )}
        </div>
      )}
      {work.state === 'failed' && (
        <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>
      )}
      {found !== null && (
        <div className="verdict common-gap-3" data-layout>
          {typeof found === 'string' ? (
            found
          ) : asked !== rig ? (
            'The rig has changed since. Look again before you take it.'
          ) : (
            <>
              <div>
                Found: <strong>{figuresWords(found.found, units.length)}</strong>.
              </div>
              {found.now && <div>Yours: {figuresWords(found.now, units.length)}.</div>}
              <div className="faint common-text-2">
                {found.proven
                  ? `Every arrangement in rows was tried (${found.tried.toLocaleString('en')}); none is better.`
                  : `${found.tried.toLocaleString('en')} arrangements were tried; a better one may exist.`}
              </div>
              {!found.better && <div>Yours is as good: there is nothing to gain.</div>}
            </>
          )}
          <Group gap={6} mt={4}>
            {typeof found !== 'string' && asked === rig && found.better && (
              <Button size="compact-sm" onClick={() => take(found.edits)}>
                Stand it so
              </Button>
            )}
            <Button size="compact-sm" variant="default" onClick={clear}>
              Leave it
            </Button>
          </Group>
        </div>
      )}
    </section>
  );
}
