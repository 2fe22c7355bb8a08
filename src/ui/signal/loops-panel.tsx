'use client';
import { Button, Menu, Select } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { type Device, type Edit, insideOf, loopState, loopWords, nameOf } from '../../core/rig';
import { useDocument, useRig } from '../store/use-rig';
import { aroundEdits, outOfLoop } from './place-edits';

/** What hangs in each loop of a device, and a way to add into it with one step. */
export function LoopsPanel({ device, onAdd }: { device: Device; onAdd: (loop: string) => void }) {
  const rig = useDocument();
  const loops = kindOf(device.kind).loops ?? [];
  if (!loops.length || !kindOf(device.kind).through) return null;
  return (
    <>
      <h3>Loops</h3>
      <table className="sheet-table common-text-2">
        <tbody>
          {loops.map((loop) => {
            const state = loopState(rig, device.id, loop);
            const held = state.is === 'free' ? [] : state.devices;
            return (
              <tr key={loop.id} data-loop-of={loop.id}>
                <td>{loop.label}</td>
                <td>
                  {held.map((id) => nameOf(rig, id)).join(', ') || (
                    <span className="faint">free</span>
                  )}
                  {state.is === 'open' && <span className="faint"> (does not come back)</span>}
                </td>
                <td>
                  <Button
                    size="compact-xs"
                    variant="default"
                    aria-label={`Add into ${loop.label}`}
                    onClick={() => onAdd(loop.id)}
                  >
                    Add
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <PutAround device={device} />
    </>
  );
}

/** Takes pedals that stand one behind the other into a loop, from the first chosen to the last. */
function PutAround({ device }: { device: Device }) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const edit = useRig((s) => s.edit);
  const loops = kindOf(device.kind).loops ?? [];
  const into = kindOf(device.kind).through?.in;
  const front = rig.leads.find((l) => l.to.device === device.id && l.to.jack === into);
  // Those in front of it, nearest last, as they stand.
  const before: Device[] = [];
  for (let lead = front; lead && before.length < 12;) {
    const d = rig.devices.find((x) => x.id === lead?.from.device);
    const kind = d && kindOf(d.kind);
    if (!d || !kind?.through || kind.loops || kind.hosts || before.includes(d)) break;
    before.unshift(d);
    lead = rig.leads.find((l) => l.to.device === d.id && l.to.jack === kind.through?.in);
  }
  if (!before.length) return null;
  const take = (count: number, loop: string) =>
    edit(
      aroundEdits(rig, before.slice(-count), device, loop, sound),
      `put ${before
        .slice(-count)
        .map((d) => d.name)
        .join(', ')} into ${loopWords(rig, device.id, loop)}`,
    );
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <Button mt={6} size="compact-xs" variant="default">
          Put a loop around what stands in front …
        </Button>
      </Menu.Target>
      <Menu.Dropdown className="long-menu">
        {loops.flatMap((loop) =>
          before.map((_, i) => (
            <Menu.Item key={`${loop.id} ${i}`} onClick={() => take(i + 1, loop.id)}>
              {loop.label}:{' '}
              {before
                .slice(-i - 1)
                .map((d) => d.name)
                .join(', ')}
            </Menu.Item>
          )),
        )}
      </Menu.Dropdown>
    </Menu>
  );
}

/** Where a device can go with one step: into a loop, out of one, or into the place of another. */
export function PlaceSteps({ device }: { device: Device }) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const edit = useRig((s) => s.edit);
  const { through, hosts } = kindOf(device.kind);
  if (!through || device.host !== undefined) return null;
  const loops = rig.devices.flatMap((host) =>
    host.id === device.id
      ? []
      : (kindOf(host.kind).loops ?? [])
          .filter((l) => insideOf(rig, { device: host.id, jack: l.send[0] ?? '' }) === undefined)
          .map((l) => {
            const state = loopState(rig, host.id, l);
            const held = state.is === 'free' ? [] : state.devices.map((id) => nameOf(rig, id));
            const words = [loopWords(rig, host.id, l.id), held.join(', ')].filter(Boolean);
            return { value: `${host.id} ${l.id}`, label: words.join(': ') };
          }),
  );
  const others = rig.devices.filter(
    (d) =>
      d.id !== device.id &&
      d.host === device.host &&
      kindOf(d.kind).through &&
      !kindOf(d.kind).hosts,
  );
  const go = (edits: Edit[]) => edit(edits);
  const into = (value: string | null) => {
    const [host = '', loop = ''] = value?.split(' ') ?? [];
    const holder = rig.devices.find((d) => d.id === host);
    if (holder) go(aroundEdits(rig, [device], holder, loop, sound));
  };
  return (
    <div className="place-steps">
      {outOfLoop(rig, device).map((w) => (
        <Button key={w.words} size="compact-sm" variant="default" onClick={() => go([w.edit])}>
          {w.words}
        </Button>
      ))}
      {loops.length > 0 && !hosts && (
        <Select
          size="xs"
          searchable
          aria-label="Into a loop"
          placeholder="Into a loop …"
          data={loops}
          value={null}
          onChange={into}
        />
      )}
      {others.length > 0 && !hosts && (
        <Select
          size="xs"
          searchable
          aria-label="Exchange with"
          placeholder="Exchange with …"
          data={others.map((d) => ({ value: d.id, label: d.name }))}
          value={null}
          onChange={(id) => id && go([{ edit: 'exchange', device: device.id, with: id }])}
        />
      )}
    </div>
  );
}
