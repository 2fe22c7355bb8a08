'use client';
import { Button } from '@mantine/core';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { LEAD_DASH, LEAD_NAMES, LEAD_TAGS, PLACE_NAMES, placeWiring } from '../../../core/draw';
import type { WiringWay } from '../../../core/draw/wiring-geometry';
import { endWords } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';
import { useJoining } from './use-joining';
import { DrawnJack } from './drawn-jack';

/**
 * The wiring by place, whatever the sound: press a lead or a box to choose it; what is chosen
 * stands out here and in the list. A free jack that is pressed lights up what fits it, and a jack
 * that fits is joined to it.
 */
export function WiringDrawing({
  scroller,
  free,
}: {
  scroller: RefObject<HTMLDivElement | null>;
  free: boolean;
}) {
  const rig = useDocument();
  const selection = useRig((s) => s.selection);
  const select = useRig((s) => s.select);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const sizes = new ResizeObserver(() => setWidth(Math.max(420, el.clientWidth - 20)));
    sizes.observe(el);
    return () => sizes.disconnect();
  }, [scroller]);
  const g = useMemo(() => placeWiring(rig, width, free), [rig, width, free]);
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
      aria-label="Wiring by place"
    >
      {g.bands.map((b) => (
        <g key={b.place}>
          <line x1={6} x2={g.width} y1={b.y} y2={b.y} stroke="var(--rule)" />
          <text x={8} y={b.y + 18} className="band">
            {PLACE_NAMES[b.place]}
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
              {b.inside > 0 && <span> ({b.inside} inside)</span>}
            </div>
          </foreignObject>
          {b.jacks.map((j) => (
            <DrawnJack key={`${j.id} ${j.side}`} box={b} jack={j} joining={joining} />
          ))}
        </g>
      ))}
      {g.ways
        .filter((w) => w.lead.id === chosen)
        .map((w) => (
          <text key={w.lead.id} x={w.tag.x + 4} y={w.tag.y + 3} className="waytag">
            {LEAD_TAGS[w.lead.type]} {w.lead.metres} m
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
            'Choose a free jack, then the other end: what fits lights up.'
          )}
        </p>
      )}
      {drawing}
    </>
  );
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
          `to ${endWords(rig, w.lead.to)}, ${LEAD_NAMES[w.lead.type]}, ${w.lead.metres} m`}
      </title>
      <path d={w.d} className="hit" />
      <path d={w.d} className="line" strokeDasharray={LEAD_DASH[w.lead.type]} />
    </g>
  );
}
