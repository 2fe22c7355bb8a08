'use client';
import { sure } from '../../core/outcome';
import { ActionIcon, Checkbox, Menu, SegmentedControl, Tooltip } from '@mantine/core';
import { IconAdjustmentsHorizontal, IconLayoutSidebarRight } from '@tabler/icons-react';
import { useLocalStorage } from '@mantine/hooks';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Kind, kindOf } from '../../core/kinds';
import { foldableHosts, walkView } from '../../core/draw';
import { soundDifferences } from '../../core/changes';
import { deviceOf, type Edit, insideOf, leadOf, nameOf } from '../../core/rig';
import { fixed, showLevel } from '../../core/units';
import { useKeys } from '../frame/use-keys';
import { SeverityMark } from '../look/severity';
import { useDocument, useRig, useRigStore, useSoundReport } from '../store/use-rig';
import { DeviceInspector } from './device-inspector';
import { ExportMenu } from './export-menu';
import { KindPicker } from './kind-picker';
import { LeadInspector } from './lead-inspector';
import { METER_ROWS, USUAL_ROWS } from './meter-rows';
import { Minimap } from './minimap';
import { appendEdits, freeOutput, freshName, insertEdits, moveEdit } from './place-edits';
import { PreviewPanel } from './preview-panel';
import { ProposalsDrawer } from './proposals/proposals-drawer';
import { usePreview } from './use-preview';
import { useWorst } from './use-worst';
import { type Compared, type Moving, Walk } from './walk';
import { type Looking, WalkTools } from './walk-tools';
import { WiringDrawing } from './wiring-drawing';
import { WiringList } from './wiring-list';

const NOTHING_FOLDED: Pick<Looking, 'folded' | 'lanes' | 'quiet'> = {
  folded: [],
  lanes: [],
  quiet: false,
};

/** The walk with its meter bridge; beside it the inspector or the wiring. */
export function SignalView() {
  const rig = useDocument();
  const store = useRigStore();
  const report = useSoundReport();
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  const edit = useRig((s) => s.edit);
  const [rows, setRows] = useLocalStorage<string[]>({
    key: 'yantrel meter rows',
    defaultValue: USUAL_ROWS,
  });
  const [side, setSide] = useState<'inspect' | 'wiring' | 'none'>('inspect');
  const [moving, setMoving] = useState<Moving | null>(null);
  const [byKeys, setByKeys] = useState(false);
  const [picking, setPicking] = useState<'insert' | 'append' | 'replace' | null>(null);
  const soundId = useRig((s) => s.sound);
  const sound = rig.sounds.find((s) => s.id === soundId);
  // What is folded is kept in this browser; what is followed or compared is asked for each time.
  const [kept, setKept] = useLocalStorage({
    key: `yantrel folded ${rig.id}`,
    defaultValue: NOTHING_FOLDED,
  });
  const [asked, setAsked] = useState<Pick<Looking, 'pane' | 'follow' | 'compare'>>({
    pane: 'walk',
    follow: null,
    compare: null,
  });
  const looking = useMemo((): Looking => ({ ...asked, ...kept }), [asked, kept]);
  const look = ({
    folded = kept.folded,
    lanes = kept.lanes,
    quiet = kept.quiet,
    ...rest
  }: Partial<Looking>) => {
    setKept({ folded, lanes, quiet });
    setAsked({ ...asked, ...rest });
  };
  const [proposing, setProposing] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const view = useMemo(
    () =>
      report &&
      walkView(rig, report, {
        folded: new Set(looking.folded),
        follow: rig.devices.some((d) => d.id === looking.follow) ? looking.follow : null,
        quiet: looking.quiet,
      }),
    [rig, report, looking],
  );
  const against = rig.sounds.find((s) => s.id === looking.compare && s.id !== soundId);
  const otherReport = useRig((s) => s.report.sounds.find((r) => r.sound === against?.id));
  const compared = useMemo((): Compared | null => {
    if (!against || !sound || !otherReport || !report) return null;
    const level = (r: typeof report, station: string) =>
      r.stations.find((s) => s.id === station)?.output.levelDbu?.normal;
    return {
      words: soundDifferences(rig, against, sound),
      levelDb: (station) => {
        const [a, b] = [level(otherReport, station), level(report, station)];
        return a === undefined || b === undefined ? null : b - a;
      },
    };
  }, [against, sound, otherReport, report, rig]);

  const device = selection?.kind === 'device' ? deviceOf(rig, selection.id) : undefined;
  const lead = selection?.kind === 'lead' ? leadOf(rig, selection.id) : undefined;
  const movePreview = usePreview(moving?.lead ? [moveEdit(rig, moving.device, moving.lead)] : null);

  const order = (view?.steps ?? []).flatMap((s) => s.leads.slice(0, 1));
  const targets = moving
    ? order.filter((id) => {
        const l = leadOf(rig, id);
        return l && l.from.device !== moving.device && l.to.device !== moving.device;
      })
    : [];

  const startMove = useCallback(() => {
    const s = store.getState().selection;
    if (
      s?.kind !== 'device' ||
      !kindOf(sure(deviceOf(store.getState().history.rig, s.id)).kind).through
    )
      return;
    setByKeys(true);
    setMoving({ device: s.id, lead: null });
  }, [store]);
  const drop = (id: string, into: string) => {
    edit(moveEdit(rig, id, into));
    setMoving(null);
    setByKeys(false);
  };
  const remove = () =>
    device && edit({ edit: 'removeDevice', device: device.id }).ok && select(null);
  const step = (by: 1 | -1) => {
    if (moving && byKeys) {
      const at = moving.lead ? targets.indexOf(moving.lead) : by > 0 ? -1 : targets.length;
      const next = targets[Math.min(targets.length - 1, Math.max(0, at + by))];
      return setMoving({ ...moving, lead: next ?? null });
    }
    const stations = view?.stations ?? [];
    const at =
      selection?.kind === 'device'
        ? stations.findIndex((s) => s.id === (selection.station ?? selection.id))
        : selection?.kind === 'lead'
          ? order.indexOf(selection.id)
          : -1;
    if (selection?.kind === 'lead') {
      const next = order[Math.min(order.length - 1, Math.max(0, at + by))];
      return next && select({ kind: 'lead', id: next });
    }
    const next = stations[Math.min(stations.length - 1, Math.max(0, at + by))];
    if (next) select({ kind: 'device', id: next.device, station: next.id });
  };
  useKeys([
    ['ArrowRight', () => step(1)],
    ['ArrowLeft', () => step(-1)],
    ['m', startMove],
    [
      'Enter',
      () => moving?.lead && byKeys && drop(moving.device, moving.lead),
      { preventDefault: false },
    ],
    [
      'Escape',
      () => {
        if (moving) {
          setMoving(null);
          setByKeys(false);
        } else select(null);
      },
    ],
    [
      'b',
      () => {
        const s = report?.stations.find((x) => x.device === device?.id);
        if (device && !kindOf(device.kind).alwaysOn && s)
          edit({
            edit: 'setEngaged',
            device: device.id,
            sound: sound?.id,
            engaged: s.state === 'through' || s.state === 'unused',
          });
      },
    ],
    ['i', () => lead && setPicking('insert')],
    ['a', () => device && freeOutput(rig, device) && setPicking('append')],
    ['r', () => device && setPicking('replace')],
    ['Delete', remove],
    [
      'l',
      () => {
        const lanes = view
          ? [...new Set(view.stations.map((s) => s.lane))].map(
              (n) => sure(view.stations.find((s) => s.lane === n)).id,
            )
          : [];
        const mine = view?.stations.find((s) => device && s.device === device.id)?.lane ?? 0;
        look({ lanes: looking.lanes.length ? [] : lanes.filter((_, n) => n !== mine) });
      },
    ],
    [
      'h',
      () => report && look({ folded: looking.folded.length ? [] : foldableHosts(rig, report) }),
    ],
    ['g', () => look({ pane: looking.pane === 'walk' ? 'wiring' : 'walk' })],
    ['w', () => setSide(side === 'wiring' ? 'inspect' : 'wiring')],
    [
      'p',
      () => {
        const first = device
          ? order.find((id) => leadOf(rig, id)?.from.device === device.id)
          : order[0];
        if (first) select({ kind: 'lead', id: first });
      },
    ],
  ]);
  useEffect(() => {
    if (selection?.kind !== 'device') return;
    document
      .querySelector(`[data-device="${selection.id}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [selection]);
  useEffect(() => {
    if (selection) setSide((s) => (s === 'none' ? 'inspect' : s));
  }, [selection]);

  const loose = rig.devices.filter((d) => !report?.stations.some((s) => s.device === d.id));
  const insertFor = useCallback(
    (k: Kind): Edit[] => (lead ? insertEdits(rig, k, lead.id, sound?.id) : []),
    [rig, lead, sound],
  );
  const appendFor = useCallback(
    (k: Kind): Edit[] => (device ? appendEdits(rig, k, device, sound?.id) : []),
    [rig, device, sound],
  );
  const replaceEdits = useCallback(
    (k: Kind): Edit[] => (device ? [{ edit: 'replaceDevice', device: device.id, kind: k.id }] : []),
    [device],
  );
  return (
    <div className={`signal${side === 'none' ? ' wide' : ''}`}>
      <div className="signal-main">
        <div className="signal-tools">
          <Arrivals />
          <Menu closeOnItemClick={false} position="bottom-end">
            <Menu.Target>
              <Tooltip label="Rows of the meter bridge">
                <ActionIcon variant="default" aria-label="Choose the rows of the meter bridge">
                  <IconAdjustmentsHorizontal size={17} />
                </ActionIcon>
              </Tooltip>
            </Menu.Target>
            <Menu.Dropdown>
              {METER_ROWS.map((r) => (
                <Menu.Item
                  key={r.id}
                  onClick={() =>
                    setRows(
                      METER_ROWS.map((x) => x.id).filter((id) =>
                        id === r.id ? !rows.includes(id) : rows.includes(id),
                      ),
                    )
                  }
                >
                  <Checkbox
                    readOnly
                    tabIndex={-1}
                    size="xs"
                    className="signal-view-checkbox"
                    checked={rows.includes(r.id)}
                    label={`${r.name}: ${r.explain}`}
                  />
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
          <ExportMenu />
          <Tooltip label="Show or hide the side">
            <ActionIcon
              variant="default"
              aria-label="Show or hide the side"
              onClick={() => setSide(side === 'none' ? 'inspect' : 'none')}
            >
              <IconLayoutSidebarRight size={17} />
            </ActionIcon>
          </Tooltip>
        </div>
        <WalkTools
          looking={looking}
          hosts={report ? foldableHosts(rig, report) : []}
          quiet={view?.quiet ?? []}
          onLook={look}
          onPropose={() => setProposing(true)}
        />
        <div className="scroll" tabIndex={-1} ref={scroller}>
          {looking.pane === 'wiring' ? (
            <WiringDrawing scroller={scroller} />
          ) : view && view.stations.length > 0 ? (
            <Walk
              rig={rig}
              view={view}
              rows={rows}
              selection={selection}
              moving={moving}
              compared={compared}
              onSelect={select}
              onMoving={setMoving}
              onDrop={drop}
              onUnfold={(h) => look({ folded: looking.folded.filter((x) => x !== h) })}
              foldedLanes={looking.lanes}
              onFoldLane={(l) =>
                look({
                  lanes: looking.lanes.includes(l)
                    ? looking.lanes.filter((x) => x !== l)
                    : [...looking.lanes, l],
                })
              }
            />
          ) : (
            <div className="empty common-gap-2">
              {!report ? (
                'Working out the figures of this sound …'
              ) : (
                <>
                  No signal path yet. Open the wiring (W), connect an instrument’s output to an
                  input, and the walk appears here.
                </>
              )}
            </div>
          )}
          {looking.pane === 'walk' && compared && view && (
            <AlsoDiffer view={view} compared={compared} name={against!.name} />
          )}
          {looking.pane === 'walk' && view && !looking.quiet && view.quiet.length > 0 && (
            <Chips title="Quiet in this sound" devices={view.quiet} />
          )}
          {loose.length > 0 && <Chips title="Not connected" devices={loose.map((d) => d.id)} />}
        </div>
        {looking.pane === 'walk' && view && (
          <Minimap
            rig={rig}
            view={view}
            rows={rows.length}
            foldedLanes={looking.lanes}
            scroller={scroller}
          />
        )}
        {moving && !moving.lead && byKeys && (
          <div className="preview">
            Moving <strong>{nameOf(rig, moving.device)}</strong>: arrow keys choose the place, Enter
            puts it there, Escape leaves it.
          </div>
        )}
        {moving?.lead && movePreview && (
          <PreviewPanel
            title={
              `${nameOf(rig, moving.device)} ` +
              `between ${nameOf(rig, sure(leadOf(rig, moving.lead)).from.device)} ` +
              `and ${nameOf(rig, sure(leadOf(rig, moving.lead)).to.device)}:`
            }
            preview={movePreview}
          />
        )}
      </div>
      {side !== 'none' && (
        <aside className="signal-side" aria-label="Inspector and wiring">
          <SegmentedControl
            m={8}
            size="xs"
            value={side}
            onChange={(v) => setSide(v === 'wiring' ? 'wiring' : 'inspect')}
            data={[
              { value: 'inspect', label: 'Inspect' },
              { value: 'wiring', label: 'Wiring' },
            ]}
          />
          <div className="side-body">
            {side === 'wiring' ? (
              <WiringList />
            ) : device ? (
              <DeviceInspector
                device={device}
                station={selection?.kind === 'device' ? selection.station : undefined}
                onAppend={freeOutput(rig, device) ? () => setPicking('append') : undefined}
                onReplace={() => setPicking('replace')}
                onRemove={remove}
                onMove={startMove}
              />
            ) : lead ? (
              <LeadInspector lead={lead} onInsert={() => setPicking('insert')} />
            ) : (
              <Guide />
            )}
          </div>
        </aside>
      )}
      <ProposalsDrawer opened={proposing} onClose={() => setProposing(false)} />
      {picking === 'insert' && lead && (
        <KindPicker
          title={`Insert between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`}
          fits={insideOf(rig, lead.from) === undefined ? hasThrough : isBlock}
          editsFor={insertFor}
          onClose={() => setPicking(null)}
          onPick={(k) => {
            const edits = insertEdits(rig, k, lead.id, sound?.id);
            setPicking(null);
            if (edit(edits).ok) select({ kind: 'device', id: edits[0].device.id });
          }}
        />
      )}
      {picking === 'append' && device && (
        <KindPicker
          title={`Add behind ${device.name}`}
          fits={device.host === undefined ? hasInput : isBlock}
          editsFor={appendFor}
          onClose={() => setPicking(null)}
          onPick={(k) => {
            const edits = appendEdits(rig, k, device, sound?.id);
            setPicking(null);
            if (edit(edits).ok) select({ kind: 'device', id: edits[0].device.id });
          }}
        />
      )}
      {picking === 'replace' && device && (
        <KindPicker
          title={`Replace ${device.name}`}
          fits={anyKind}
          editsFor={replaceEdits}
          onClose={() => setPicking(null)}
          onPick={(k) => {
            setPicking(null);
            edit({
              edit: 'replaceDevice',
              device: device.id,
              kind: k.id,
              name: device.name === kindOf(device.kind).name ? freshName(rig, k.name) : undefined,
            });
          }}
        />
      )}
    </div>
  );
}

const hasThrough = (k: Kind) =>
  k.through !== undefined && !k.jacks.every((j) => j.connector === 'inside');
const isBlock = (k: Kind) =>
  k.through !== undefined && (k.block !== undefined || k.hosts !== undefined);
const hasInput = (k: Kind) => k.jacks.some((j) => j.direction !== 'out' && !j.inside);
const anyKind = () => true;

/** Devices in a row of small strips, to be chosen from. */
function Chips({ title, devices }: { title: string; devices: readonly string[] }) {
  const rig = useDocument();
  const select = useRig((s) => s.select);
  const worst = useWorst();
  return (
    <div className="chips">
      {title}:{' '}
      {devices.map((id) => (
        <button
          key={id}
          type="button"
          className="sound"
          data-chip={id}
          onClick={() => select({ kind: 'device', id })}
        >
          {worst.has(id) && <SeverityMark severity={sure(worst.get(id))} quiet />}
          {nameOf(rig, id)}
        </button>
      ))}
    </div>
  );
}

/** What differs from the compared sound on devices that are not on this walk. */
function AlsoDiffer({
  view,
  compared,
  name,
}: {
  view: NonNullable<ReturnType<typeof walkView>>;
  compared: Compared;
  name: string;
}) {
  const rig = useDocument();
  const shown = new Set(view.stations.flatMap((s) => [s.device, ...(s.folded ?? [])]));
  const rest = [...compared.words].filter(([id]) => !shown.has(id));
  if (!compared.words.size) return <div className="chips">Nothing differs from {name}.</div>;
  return rest.length ? (
    <div className="chips">
      Not on this walk, and different from {name}:{' '}
      {rest.map(([id, words]) => `${nameOf(rig, id)} (${words.join(', ')})`).join('; ')}
    </div>
  ) : null;
}

/** What arrives where, in one line for each destination. */
function Arrivals() {
  const report = useSoundReport();
  const units = useRig((s) => s.units);
  return (
    <div className="arrivals" role="group" aria-label="What arrives">
      {report?.destinations.map((d) => (
        <span key={d.device} data-destination={d.device}>
          <strong>{d.name}</strong>{' '}
          <span className="figures">
            {d.levelDbu
              ? showLevel(d.levelDbu.normal, units.level) +
                ', ' +
                (d.signalToNoiseDb === null ? 'no noise' : `${fixed(d.signalToNoiseDb)} dB S/N`) +
                ', ' +
                (d.thdPercent ? `${fixed(d.thdPercent.normal)} %` : '') +
                `, ${d.pairedWith ? `${d.side} of stereo` : d.channels}, ${fixed(d.latencyMs ?? 0)} ms`
              : 'silent'}
          </span>
        </span>
      ))}
    </div>
  );
}

function Guide() {
  return (
    <div className="guide-text">
      <h2>Nothing chosen</h2>
      <p>
        Choose a strip to see what the device does in this sound, or the two letters on a lead to
        probe it.
      </p>
      <p className="faint">
        Letters on leads: TS instrument, BL balanced, ST stereo, IN insert, SP speaker, DG digital,
        AR air, LK a link inside a modeler. The bar under a strip runs from noise to level; the thin
        tick is the peak, the dashed one the clip point.
      </p>
      <p className="faint">
        Levels are figured at 1 kHz while playing normally. Arrow keys walk along, B bypasses, M
        moves, I inserts into a probed lead, ? shows all keys.
      </p>
    </div>
  );
}
