'use client';
import { Button, Menu, Select } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { type Device, loopState, loopWords, nameOf, type Rig } from '../../core/rig';
import { useDocument, useDrawn, useRig, useRigStore } from '../store/use-rig';
import { deviceOf, leadsInto } from '../../core/rig/find';
import { aroundEdits, outOfLoop } from './place-edits';

/** What hangs in each loop of a device, and a way to add into it with one step. */
export function LoopsPanel({
  device,
  onAdd,
}: {
  device: Device;
  /** Adds a new device into one of its loops. */
  onAdd: (into: { loop: string }) => void;
}) {
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
                    onClick={() => onAdd({ loop: loop.id })}
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

/** So many that stand in front are offered. */
const MOST = 12;

/** What stands in front of a device, one behind the other, up to whatever has loops or ends it; nearest last. */
function runBefore(rig: Rig, device: Device): Device[] {
  const run: Device[] = [];
  const before = (d: Device) =>
    leadsInto(rig, d.id).find((l) => l.to.jack === kindOf(d.kind).through?.in);
  for (let lead = before(device); lead && run.length < MOST;) {
    const d = deviceOf(rig, lead.from.device);
    const kind = d && kindOf(d.kind);
    if (!d || !kind?.through || kind.loops || kind.hosts || run.includes(d)) break;
    run.unshift(d);
    lead = before(d);
  }
  return run;
}

const namesOf = (devices: readonly Device[]): string => devices.map((d) => d.name).join(', ');

/** Takes pedals that stand one behind the other into a loop, from the first chosen to the last. */
function PutAround({ device }: { device: Device }) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const edit = useRig((s) => s.edit);
  const loops = kindOf(device.kind).loops ?? [];
  const before = runBefore(rig, device);
  if (!before.length) return null;
  const take = (some: readonly Device[], loop: string) =>
    edit(
      aroundEdits(rig, some, device, loop, sound),
      `put ${namesOf(some)} into ${loopWords(rig, device.id, loop)}`,
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
          before.map((_, i) => {
            const some = before.slice(-i - 1);
            return (
              <Menu.Item key={`${loop.id} ${some.length}`} onClick={() => take(some, loop.id)}>
                {loop.label}: {namesOf(some)}
              </Menu.Item>
            );
          }),
        )}
      </Menu.Dropdown>
    </Menu>
  );
}

/** Takes devices into one loop, in the order given: all loops of others, each with what hangs there. */
export function LoopSelect({ devices, label }: { devices: readonly string[]; label: string }) {
  const store = useRigStore();
  const loops = useDrawn((rig) =>
    rig.devices.flatMap((host) =>
      devices.includes(host.id) || host.host !== undefined
        ? []
        : (kindOf(host.kind).loops ?? []).map((l) => {
            const state = loopState(rig, host.id, l);
            const held = state.is === 'free' ? [] : state.devices.map((id) => nameOf(rig, id));
            const words = [loopWords(rig, host.id, l.id), held.join(', ')].filter(Boolean);
            return { value: `${host.id} ${l.id}`, label: words.join(': ') };
          }),
    ),
  );
  if (!devices.length || !loops.length) return null;
  const into = (value: string | null) => {
    const [host = '', loop = ''] = value?.split(' ') ?? [];
    const { history, sound, edit } = store.getState();
    const { rig } = history;
    const holder = deviceOf(rig, host);
    const some = devices.flatMap((d) => deviceOf(rig, d) ?? []);
    if (!holder) return;
    edit(
      aroundEdits(rig, some, holder, loop, sound),
      `put ${namesOf(some)} into ${loopWords(rig, host, loop)}`,
    );
  };
  return (
    <Select
      size="xs"
      searchable
      aria-label={label}
      placeholder={`${label} …`}
      data={loops}
      value={null}
      onChange={into}
    />
  );
}

/** Where a device can go with one step: into a loop, out of one, or into the place of another. */
export function PlaceSteps({ device }: { device: string }) {
  const edit = useRig((s) => s.edit);
  const steps = useDrawn((rig) => {
    const one = deviceOf(rig, device);
    const { through, hosts } = one ? kindOf(one.kind) : {};
    if (!one || !through || hosts || one.host !== undefined) return null;
    const others = rig.devices.filter((d) => {
      const kind = kindOf(d.kind);
      return d.id !== device && d.host === undefined && kind.through && !kind.hosts;
    });
    return {
      out: outOfLoop(rig, one),
      others: others.map((d) => ({ value: d.id, label: d.name })),
    };
  });
  if (!steps) return null;
  return (
    <div className="place-steps">
      {steps.out.map((w) => (
        <Button key={w.words} size="compact-sm" variant="default" onClick={() => edit(w.edit)}>
          {w.words}
        </Button>
      ))}
      <LoopSelect devices={[device]} label="Into a loop" />
      {steps.others.length > 0 && (
        <Select
          size="xs"
          searchable
          aria-label="Exchange with"
          placeholder="Exchange with …"
          data={steps.others}
          value={null}
          onChange={(id) => id && edit({ edit: 'exchange', device, with: id })}
        />
      )}
    </div>
  );
}
