'use client';
import equal from 'fast-deep-equal';
import { memo } from 'react';
import { LEAD_DASH, LEAD_NAMES, LEAD_TAGS, type PlacedLead } from '../../core/draw';
import type { WalkGeometry, Way } from '../../core/draw/walk-geometry';
import { endWords } from '../../core/rig';
import { type Props } from './walk';

/** The tags of the leads: what each is, and whether a device in hand can go there. */
export function LeadTags({
  geometry,
  rig,
  selection,
  moving,
  onSelect,
}: { geometry: WalkGeometry } & Pick<Props, 'rig' | 'selection' | 'moving' | 'onSelect'>) {
  const takes = (device: string, { lead }: PlacedLead) =>
    lead.from.device !== device && lead.to.device !== device;
  return geometry.leads.map((l) => (
    <LeadTag
      key={l.lead.id}
      {...{ x: l.x, y: l.y, count: l.count, lead: l.lead }}
      words={
        `${endWords(rig, l.lead.from)} ` +
        `to ${endWords(rig, l.lead.to)}, ${LEAD_NAMES[l.lead.type]}, ${l.lead.metres} m`
      }
      selected={selection?.kind === 'lead' && selection.id === l.lead.id}
      target={moving !== null && takes(moving.device, l)}
      over={moving?.lead === l.lead.id}
      onSelect={onSelect}
    />
  ));
}

/** The ways between stations, those that carry sound over those that do not. */
export function Ways({ geometry }: { geometry: WalkGeometry }) {
  return (
    <svg className="ways" width={geometry.width} height={geometry.height} aria-hidden>
      {[...geometry.ways]
        .sort((a, b) => Number(a.flat) - Number(b.flat))
        .map((w) => (
          <WayLines key={w.key} d={w.d} live={w.live} stereo={w.stereo} type={w.type} />
        ))}
    </svg>
  );
}

const WayLines = memo(function WayLines({
  d,
  live,
  stereo,
  type,
}: Pick<Way, 'd' | 'live' | 'stereo' | 'type'>) {
  return (
    <g
      fill="none"
      stroke={live ? 'var(--live)' : 'var(--rule)'}
      strokeWidth={live ? 3 : 2}
      strokeDasharray={LEAD_DASH[type]}
    >
      <path d={d} stroke="var(--sheet)" strokeWidth={stereo ? 16 : 10} strokeDasharray="none" />
      <path d={d} />
      {stereo && <path d={d} transform="translate(0 5)" />}
    </g>
  );
});

const LeadTag = memo(function LeadTag({
  lead,
  x,
  y,
  count,
  words,
  selected,
  target,
  over,
  onSelect,
}: Omit<PlacedLead, 'live'> & {
  words: string;
  selected: boolean;
  target: boolean;
  over: boolean;
  onSelect: Props['onSelect'];
}) {
  return (
    <button
      type="button"
      className="leadtag"
      data-lead={lead.id}
      data-target={target}
      data-over={over}
      aria-pressed={selected}
      aria-label={`Lead: ${words}`}
      title={`Probe: ${words}`}
      style={{ left: x - 11, top: y - 12 }}
      onClick={() => onSelect({ kind: 'lead', id: lead.id })}
    >
      {LEAD_TAGS[lead.type]}
      {count > 1 && (
        <>
          <br />×{count}
        </>
      )}
    </button>
  );
}, equal);
