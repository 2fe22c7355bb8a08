import dynamic from 'next/dynamic';
import { useCallback, useMemo, useRef } from 'react';
import { placeWalk, type WalkView } from '../../../core/draw';
import type { WalkGeometry } from '../../../core/draw/walk-geometry';
import { isPlugged } from '../../../core/rig/find';
import { laterPart } from '../../look/later';
import { useDocument, useRig, useSoundReport } from '../../store/use-rig';
import { METER_ROWS } from '../meter-rows';
import { Minimap } from '../minimap';
import { Walk } from '../walk';
import type { Compared } from '../walk-looks';
import type { Looking } from '../walk-tools';
import { AlsoDiffer } from './also-differ';
import { Chips } from './chips';
import type { InHand } from './use-moving';
import { useCompared } from './use-walk-view';

const WalkTable = dynamic(
  laterPart('walk table', () => import('../walk-table').then((m) => m.WalkTable)),
  { ssr: false },
);
const WiringDrawing = dynamic(
  laterPart('wiring drawing', () =>
    import('../wiring/wiring-drawing').then((m) => m.WiringDrawing),
  ),
  { ssr: false },
);

/** Where strips and leads of a walk stand; nothing where it has none. What is the same in both sounds is narrow. */
function usePlaced(
  view: WalkView | undefined,
  rows: number,
  compared: Compared | null,
  foldedLanes: readonly string[],
): WalkGeometry | undefined {
  const { leads } = useDocument();
  return useMemo(
    () =>
      view?.stations.length
        ? placeWalk(
            view,
            leads,
            rows,
            compared
              ? (s) =>
                  !compared.words.has(s.device) && !s.folded?.some((d) => compared.words.has(d))
              : undefined,
            new Set(foldedLanes),
          )
        : undefined,
    [view, leads, rows, compared, foldedLanes],
  );
}

/** The walk or the drawing of the wiring, with what is on neither below, and where on it one is. */
export function WalkPane({
  view,
  rows,
  looking,
  look,
  hand,
}: {
  view: WalkView | undefined;
  rows: string[];
  looking: Looking;
  look: (change: Partial<Looking>) => void;
  hand: InHand;
}) {
  const rig = useDocument();
  const report = useSoundReport();
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  const compared = useCompared(looking);
  const scroller = useRef<HTMLDivElement>(null);
  const walked = report && new Set(report.stations.map((s) => s.device));
  const silent = rig.devices.map((d) => d.id).filter((id) => walked && !walked.has(id));
  const isUsed = (id: string) =>
    isPlugged(rig, id) || rig.devices.some((d) => d.supply?.device === id);
  const [beside, loose] = [silent.filter(isUsed), silent.filter((id) => !isUsed(id))];
  const shown = useMemo(() => METER_ROWS.filter((r) => rows.includes(r.id)), [rows]);
  const placed = usePlaced(
    looking.pane === 'walk' ? view : undefined,
    shown.length,
    compared,
    looking.lanes,
  );
  const walking = looking.pane !== 'wiring';
  // A strip whose figures stay is not drawn again for a hand that it was given anew.
  const { lanes, folded } = looking;
  const fold = useCallback(
    (lane: string) =>
      look({ lanes: lanes.includes(lane) ? lanes.filter((x) => x !== lane) : [...lanes, lane] }),
    [look, lanes],
  );
  const unfold = useCallback(
    (host: string) => look({ folded: folded.filter((x) => x !== host) }),
    [look, folded],
  );
  return (
    <>
      <div className="scroll" tabIndex={-1} ref={scroller}>
        {!walking ? (
          <WiringDrawing {...{ scroller, looking, look }} />
        ) : view && view.stations.length > 0 && looking.pane === 'table' ? (
          <WalkTable {...{ rig, view, rows, selection }} onSelect={select} />
        ) : placed ? (
          <Walk
            rig={rig}
            placed={placed}
            shown={shown}
            selection={selection}
            moving={hand.moving}
            compared={compared}
            onSelect={select}
            onMoving={hand.setMoving}
            onDrop={hand.drop}
            onUnfold={unfold}
            onFoldLane={fold}
            scroller={scroller}
          />
        ) : (
          <div className="empty common-gap-2">
            {report
              ? 'No signal path yet. Open the wiring (W), connect an instrument’s output to an ' +
                'input, and the walk appears here.'
              : 'Working out the figures of this sound …'}
          </div>
        )}
        {walking && compared && view && (
          <AlsoDiffer view={view} compared={compared} name={compared.name} />
        )}
        {walking && view && !looking.quiet && view.quiet.length > 0 && (
          <Chips title="Quiet in this sound" devices={view.quiet} />
        )}
        {beside.length > 0 && <Chips title="Beside the signal" devices={beside} />}
        {loose.length > 0 && <Chips title="Not connected" devices={loose} />}
      </div>
      {looking.pane === 'walk' && placed && <Minimap placed={placed} scroller={scroller} />}
    </>
  );
}
