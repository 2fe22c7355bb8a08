'use client';
import { Button } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { type Device, nameOf } from '../../core/rig';
import { fixed } from '../../core/units';
import { useDocument, useRig, useSoundReport } from '../store/use-rig';

/**
 * What a host has room for and what is used of it, what lives inside, and what hangs on its sends
 * and returns.
 */
export function HostPanel({ device }: { device: Device }) {
  const rig = useDocument();
  const select = useRig((s) => s.select);
  const use = useSoundReport()?.hosts.find((h) => h.host === device.id);
  if (!use) return null;
  const rows = [
    ['Slots', use.used.slots, use.has.slots, ''],
    ['Processing', use.used.percent, use.has.percent, ' %'],
    ['Paths', use.used.paths, use.has.paths, ''],
  ] as const;
  return (
    <div data-host={device.id}>
      <h3>Room inside</h3>
      <HostUse rows={rows} />
      <p className="faint host-panel-text">
        Typical costs; correct what a block costs under its figures. A bypassed block keeps its
        slot.
      </p>
      {use.blocks.length > 0 && (
        <div className="chips no-margin">
          {use.blocks.map((id) => (
            <button
              key={id}
              type="button"
              className="sound"
              onClick={() => select({ kind: 'device', id })}
            >
              {nameOf(rig, id)}
            </button>
          ))}
        </div>
      )}
      {use.loops.length > 0 && (
        <>
          <h3>Sends and returns</h3>
          <table className="sheet-table common-text-2">
            <tbody>
              {use.loops.map((l) => (
                <tr key={l.id} data-loop={l.id}>
                  <td>{l.label.replace('send and return ', '')}</td>
                  <td>
                    {l.sends === null ? (
                      <span className="faint">send free</span>
                    ) : (
                      `to ${nameOf(rig, l.sends)}`
                    )}
                  </td>
                  <td>
                    {l.returns === null ? (
                      <span className="faint">return free</span>
                    ) : (
                      `from ${nameOf(rig, l.returns)}`
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {use.blocks.length === 0 && (
        <p className="common-text-2">
          Nothing inside yet: probe a link of its path (the letters LK) and press I.
        </p>
      )}
    </div>
  );
}

/** What of the host is used up. */
function HostUse({
  rows,
}: {
  rows: readonly [
    readonly ['Slots', number, number, ''],
    readonly ['Processing', number, number, ' %'],
    readonly ['Paths', number, number, ''],
  ];
}) {
  return (
    <table className="sheet-table numbers figures common-text-2">
      <thead>
        <tr>
          <th />
          <th>Used</th>
          <th>Has</th>
          <th>Left</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([label, used, has, unit]) => (
          <tr key={label} data-over={used > has}>
            <td>{label}</td>
            <td>
              {fixed(used, 0)}
              {unit}
            </td>
            <td>
              {fixed(has, 0)}
              {unit}
            </td>
            <td style={used > has ? { color: 'var(--fault)', fontWeight: 700 } : undefined}>
              {used > has
                ? `${fixed(used - has, 0)}${unit} over`
                : `${fixed(has - used, 0)}${unit}`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/**
 * What is plugged into each loop of a switcher, so that an order can be written without looking
 * behind it.
 */
export function loopHint(rig: ReturnType<typeof useDocument>, device: Device): string {
  const loops = kindOf(device.kind).loops ?? [];
  const words = loops.flatMap((l, i) => {
    const lead = rig.leads.find((x) => x.from.device === device.id && l.send.includes(x.from.jack));
    return lead ? [`${i + 1} ${nameOf(rig, lead.to.device)}`] : [];
  });
  return (
    'Numbers in the order of the signal, side by side in brackets, a level after @: 2 1 ' +
    `(3+4@-6). ${words.length ? `Plugged: ${words.join(', ')}.` : 'Nothing is plugged into its loops yet.'}`
  );
}

/** Moves between inside and outside of a host, each one press. */
export function MoveButtons({
  ways,
}: {
  ways: { words: string; edit: Parameters<ReturnType<typeof useEditOf>>[0] }[];
}) {
  const edit = useEditOf();
  return (
    <>
      {ways.map((w) => (
        <Button key={w.words} size="compact-sm" variant="default" onClick={() => edit(w.edit)}>
          {w.words}
        </Button>
      ))}
    </>
  );
}

const useEditOf = () => useRig((s) => s.edit);
