'use client';
import { useLocalStorage } from '@mantine/hooks';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { foldableHosts } from '../../../core/draw/walk-view';
import { deviceOf, leadOf } from '../../../core/rig/find';
import { useDocument, useRig, useSoundReport } from '../../store/use-rig';
import { HeldKeys } from '../../look/held-keys';
import { laterPart } from '../../look/later';
import { WhenFirst } from '../../look/when-first';
import { USUAL_ROWS } from '../meter-rows';
import { WalkTools } from '../walk-tools';
import { SidePanel } from './side-panel';
import { SignalTools } from './signal-tools';
import { useClipboard } from './use-clipboard';
import { useLooking } from './use-looking';
import { useMoving } from './use-moving';
import { type Picking, type Side, useSignalKeys } from './use-signal-keys';
import { useWalkView } from './use-walk-view';
import { WalkPane } from './walk-pane';

const ProposalsDrawer = dynamic(
  laterPart('proposals', () =>
    import('../proposals/proposals-drawer').then((m) => m.ProposalsDrawer),
  ),
  { ssr: false },
);
const MovingHint = dynamic(
  laterPart('moving', () => import('./moving-hint').then((m) => m.MovingHint)),
  { ssr: false },
);
const Pickers = dynamic(
  laterPart('pickers', () => import('./picked').then((m) => m.Picked)),
  { ssr: false, loading: HeldKeys },
);

/** The walk with its meter bridge; beside it the inspector or the wiring. */
export function SignalView() {
  const rig = useDocument();
  const report = useSoundReport();
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  const edit = useRig((s) => s.edit);
  const [rows, setRows] = useLocalStorage<string[]>({
    key: 'yantrel meter rows',
    defaultValue: USUAL_ROWS,
  });
  const [side, setSide] = useState<Side>('inspect');
  const [picking, setPicking] = useState<Picking>(null);
  const [proposing, setProposing] = useState(false);
  const [looking, look] = useLooking(rig.id);
  const view = useWalkView(looking);
  const order = (view?.steps ?? []).flatMap((s) => s.leads.slice(0, 1));
  const hand = useMoving(order);
  const device = selection?.kind === 'device' ? deviceOf(rig, selection.id) : undefined;
  const lead = selection?.kind === 'lead' ? leadOf(rig, selection.id) : undefined;
  const chosen = useRig((s) => s.chosen);
  const one = device?.id;
  const remove = () => {
    const gone = chosen.length ? chosen : one === undefined ? [] : [one];
    if (gone.length && edit(gone.map((d) => ({ edit: 'removeDevice', device: d }))).ok)
      select(null);
  };
  useClipboard();
  useSignalKeys({
    device,
    lead,
    view,
    order,
    looking,
    look,
    hand,
    setSide,
    setPicking,
    remove,
  });
  useShown(setSide);
  const close = () => setPicking(null);
  return (
    <div className={`signal${side === 'none' ? ' wide' : ''}`}>
      <div className="signal-main">
        <SignalTools
          rows={rows}
          onRows={setRows}
          onSide={() => setSide(side === 'none' ? 'inspect' : 'none')}
        />
        <WalkTools
          looking={looking}
          hosts={report ? foldableHosts(rig, report) : []}
          quiet={view?.quiet ?? []}
          onLook={look}
          onPropose={() => setProposing(true)}
        />
        <WalkPane view={view} rows={rows} looking={looking} look={look} hand={hand} />
        {hand.moving && <MovingHint moving={hand.moving} byKeys={hand.byKeys} />}
      </div>
      {side !== 'none' && (
        <SidePanel
          {...{ side, device, lead }}
          onSide={setSide}
          onPick={setPicking}
          onRemove={remove}
          onMove={hand.start}
        />
      )}
      <WhenFirst wanted={proposing}>
        <ProposalsDrawer opened={proposing} onClose={() => setProposing(false)} />
      </WhenFirst>
      {picking !== null && <Pickers {...{ picking, device, lead }} onClose={close} />}
    </div>
  );
}

/** What is chosen, a device or a lead, is scrolled into sight, and the side is opened for it. */
function useShown(setSide: (change: (side: Side) => Side) => void) {
  const selection = useRig((s) => s.selection);
  useEffect(() => {
    if (selection) setSide((s) => (s === 'none' ? 'inspect' : s));
    if (!selection) return;
    document
      .querySelector(`[data-${selection.kind}="${selection.id}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [selection, setSide]);
}
