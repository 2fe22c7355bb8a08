'use client';
import { Button } from '@mantine/core';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { LEAD_DASH, LEAD_NAMES, LEAD_TAGS, PLACE_NAMES, placeWiring } from '../../../core/draw';
import { kindOf } from '../../../core/kinds';
import type { WiringBox, WiringWay } from '../../../core/draw/wiring-geometry';
import { endWords, nameOf, placeOf } from '../../../core/rig';
import { useDocument, useRig, useRigStore } from '../../store/use-rig';
import type { Looking } from '../walk-tools';
import { useJoining } from './use-joining';
import { DrawnJack } from './drawn-jack';

/**
 * The wiring by place, whatever the sound, on the stage or inside one host: press a lead or a box to
 * choose it; what is chosen stands out here and in the list. A free jack that is pressed lights up
 * what fits it, and a jack that fits is joined to it.
 */
export function WiringDrawing({
  scroller,
  looking: { held, inside },
  look,
}: {
  scroller: RefObject<HTMLDivElement | null>;
  looking: Looking;
  look: (change: Partial<Looking>) => void;
}) {
  const rig = useDocument();
  const selection = useRig((s) => s.selection);
  const free = !held;
  const select = useRig((s) => s.select);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const sizes = new ResizeObserver(() => setWidth(Math.max(420, el.clientWidth - 20)));
    sizes.observe(el);
    return () => sizes.disconnect();
  }, [scroller]);
  const host = rig.devices.find((d) => d.id === inside && kindOf(d.kind).hosts)?.id;
  const g = useMemo(
    () => placeWiring(rig, width, { free, inside: host }),
    [rig, width, free, host],
  );
  useWhereChosen();
  const joining = useJoining();
  const chosen = selection?.kind === 'lead' ? selection.id : null;
  const device = selection?.kind === 'device' ? selection.id : null;
  const isOn = (w: (typeof g.ways)[number]) =>
    w.lead.id === chosen || w.lead.from.device === device || w.lead.to.device === device;
  useEffect(() => {
    if (chosen)
      document
        .querySelector(`[data-way="${chosen}"]`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [chosen]);
  const drawing = (
    <svg
      className="wiring"
      data-free={free}
      data-joining={joining.from !== null}
      width={g.width}
      height={g.height}
      role="group"
      aria-label={host === undefined ? 'Wiring by place' : `Wiring inside ${nameOf(rig, host)}`}
    >
      {g.bands.map((b) => (
        <g key={b.place}>
          <line x1={6} x2={g.width} y1={b.y} y2={b.y} stroke="var(--rule)" />
          <text x={8} y={b.y + 18} className="band">
            {host === undefined ? PLACE_NAMES[b.place] : `Inside ${nameOf(rig, host)}`}
          </text>
        </g>
      ))}
      {[...g.ways]
        .sort((a, b) => Number(isOn(a)) - Number(isOn(b)))
        .map((w) => (
          <DrawnLead key={w.lead.id} w={w} isOn={isOn} chosen={chosen} />
        ))}
      {g.boxes.map((b) => (
        <g
          key={b.device.id}
          data-box={b.device.id}
          className="box"
          data-on={b.device.id === device}
          onClick={() => select({ kind: 'device', id: b.device.id })}
        >
          <rect x={b.x} y={b.y} width={b.width} height={b.height} rx={2} />
          <foreignObject x={b.x + 2} y={b.y + 2} width={b.width - 4} height={31}>
            <div className="boxname">
              {b.device.name}
              {held && b.inside ? <span> ({b.inside} inside)</span> : null}
            </div>
          </foreignObject>
          {b.inside !== undefined && free && <LookInside box={b} look={look} />}
          {b.jacks.map((j) => (
            <DrawnJack key={`${j.id} ${j.side}`} box={b} jack={j} joining={joining} />
          ))}
        </g>
      ))}
      {g.ways
        .filter((w) => w.lead.id === chosen)
        .map((w) => (
          <text key={w.lead.id} x={w.tag.x + 4} y={w.tag.y + 3} className="waytag">
            {LEAD_TAGS[w.lead.type]} {w.lead.type !== 'inside' && `${w.lead.metres} m`}
          </text>
        ))}
    </svg>
  );
  return (
    <>
      {free && (
        <p className="joining" role="status">
          {joining.from ? (
            <>
              {joining.words}{' '}
              <Button size="compact-xs" variant="default" onClick={joining.leave}>
                Leave it (Esc)
              </Button>
            </>
          ) : (
            `Choose a ${host === undefined ? 'free ' : ''}jack, then the other end: what fits lights up.`
          )}
        </p>
      )}
      {drawing}
    </>
  );
}

/** Leads from a host to the drawing of what is inside it. */
function LookInside({ box, look }: { box: WiringBox; look: (change: Partial<Looking>) => void }) {
  return (
    <foreignObject x={box.x + 2} y={box.y + box.height - 28} width={box.width - 4} height={26}>
      <button
        className="look-inside"
        aria-label={`${box.inside} inside ${box.device.name}: their wiring`}
        onClick={(e) => {
          e.stopPropagation();
          look({ inside: box.device.id });
        }}
      >
        {box.inside} inside
      </button>
    </foreignObject>
  );
}

/** What is chosen is drawn: a block or a link of a host with its inside, what stands on the stage there. */
function useWhereChosen(): void {
  const store = useRigStore();
  const selection = useRig((s) => s.selection);
  useEffect(() => {
    const { history, signalAsked, askSignal } = store.getState();
    const { rig } = history;
    const place =
      selection?.kind === 'lead'
        ? rig.leads.filter((l) => l.id === selection.id).map((l) => placeOf(rig, l.from))
        : rig.devices.filter((d) => d.id === selection?.id).map((d) => d.host ?? '');
    const shown = signalAsked.inside ?? '';
    // A host itself is in both.
    if (place[0] === undefined || place[0] === shown || selection?.id === shown) return;
    askSignal({ inside: place[0] || null });
  }, [selection, store]);
}

/** One lead of the drawing. */
function DrawnLead({
  w,
  isOn,
  chosen,
}: {
  w: WiringWay;
  isOn: (w: WiringWay) => boolean;
  chosen: string | null;
}) {
  const rig = useDocument();
  const select = useRig((s) => s.select);
  return (
    <g
      data-way={w.lead.id}
      className="way"
      data-on={isOn(w)}
      tabIndex={0}
      role="button"
      aria-pressed={w.lead.id === chosen}
      aria-label={
        `Lead: ${endWords(rig, w.lead.from)} ` +
        `to ${endWords(rig, w.lead.to)}, ${LEAD_NAMES[w.lead.type]}`
      }
      onClick={() => select({ kind: 'lead', id: w.lead.id })}
      onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'lead', id: w.lead.id })}
    >
      <title>
        {`${endWords(rig, w.lead.from)} ` +
          `to ${endWords(rig, w.lead.to)}, ${LEAD_NAMES[w.lead.type]}` +
          (w.lead.type === 'inside' ? '' : `, ${w.lead.metres} m`)}
      </title>
      <path d={w.d} className="hit" />
      <path d={w.d} className="line" strokeDasharray={LEAD_DASH[w.lead.type]} />
    </g>
  );
}
