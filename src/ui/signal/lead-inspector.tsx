'use client';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { Button, Group, Select, Switch } from '@mantine/core';
import { USUAL_SQUARE_MM } from '../../core/analysis';
import type { SectionTone } from '../../core/analysis/sections';
import { LEAD_NAMES } from '../../core/draw';
import { reasonOf, sure } from '../../core/outcome';
import {
  DEFAULT_PF_PER_METRE,
  endWords,
  insideOf,
  type Lead,
  LEAD_TYPES,
  nameOf,
} from '../../core/rig';
import { type PointFigures, touchWord } from '../../core/signal';
import { fixed, showLength, showLevel, withPrefix } from '../../core/units';
import { useDocument, useRig, useSoundReport } from '../store/use-rig';
import { CommitText } from '../look/commit-text';
import { CommitNumber } from '../look/commit-number';

const NoteProbe = dynamic(() => import('./note-probe').then((m) => m.NoteProbe), { ssr: false });

/** A probe on one lead: what is on it in this sound, the impedances at its ends, and the lead itself. */
export function LeadInspector({ lead, onInsert }: { lead: Lead; onInsert: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const units = useRig((s) => s.units);
  const report = useSoundReport();
  const from = report?.stations.find(
    (s) => s.device === lead.from.device && s.outs.includes(lead.from.jack),
  );
  const to = report?.stations.find(
    (s) => s.device === lead.to.device && s.ins.includes(lead.to.jack),
  );
  const at: PointFigures | undefined = to?.input ?? from?.output;
  const tone = report?.tones.find((t) => t.leads.includes(lead.id));
  const level = (v: number | null | undefined) => showLevel(v ?? null, units.level);
  const short = (v: number) => level(v).split(' ')[0];
  return (
    <div data-probe={lead.id}>
      <h2>Probe</h2>
      <div className="small-print">
        {endWords(rig, lead.from)} <strong>to</strong> {endWords(rig, lead.to)}
      </div>
      {at && (
        <>
          <h3>On this lead now</h3>
          <LeadFigures at={at} short={short} level={level} tone={tone} />
        </>
      )}
      {at?.levelDbu && <NoteProbe device={lead.to.device} point={lead.to.jack} />}
      {lead.type === 'inside' ? (
        <p className="faint">
          A link inside {nameOf(rig, insideOf(rig, lead.from) ?? '')}: no metres, no capacitance.
        </p>
      ) : (
        <>
          <h3>The lead</h3>
          <Select
            size="xs"
            label="Type"
            data={LEAD_TYPES.map((t) => ({ value: t, label: LEAD_NAMES[t] }))}
            value={lead.type}
            allowDeselect={false}
            onChange={(v) =>
              v &&
              edit({ edit: 'setLead', lead: lead.id, type: sure(LEAD_TYPES.find((t) => t === v)) })
            }
          />
          <LeadMeasures lead={lead} />
          <LeadTraits lead={lead} />
          <CommitText
            mt={4}
            label="Label"
            value={lead.label}
            onCommit={(label = '') => edit({ edit: 'setLead', lead: lead.id, label })}
          />
        </>
      )}
      <Group gap={6} mt={10}>
        <Button size="compact-sm" onClick={onInsert}>
          Insert a device (I)
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => edit({ edit: 'disconnect', lead: lead.id })}
        >
          Disconnect
        </Button>
      </Group>
      {insideOf(rig, lead.from) === undefined && <TypedIntoLead key={lead.id} lead={lead} />}
    </div>
  );
}

/** What reads a typed chain, fetched when there is one to read. */
const chains = () => import('../../core/start');

/** Several things put into a lead by typing them, one behind the other. */
function TypedIntoLead({ lead }: { lead: Lead }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <CommitText
      mt={8}
      label="Put in by typing"
      placeholder="low drive > delay"
      value=""
      error={why}
      onCommit={async (line = '') => {
        const { chainInto } = await chains();
        const edits = chainInto(rig, lead.id, line);
        setWhy(edits.ok ? null : reasonOf(edits));
        if (edits.ok) edit(edits.value, `put ${line} into a lead`);
      }}
    />
  );
}

/** What only some types of lead have: a cross-section, a colour of conductors, crossed or lifted ends. */
function LeadTraits({ lead }: { lead: Lead }) {
  const edit = useRig((s) => s.edit);
  return (
    <>
      {lead.type === 'speaker' && (
        <Measure
          label="Cross-section, mm²"
          value={lead.squareMm ?? USUAL_SQUARE_MM}
          max={16}
          onCommit={(squareMm) => edit({ edit: 'setLead', lead: lead.id, squareMm })}
        />
      )}
      {lead.type === 'insert' && <LeadType lead={lead} />}
      {lead.type === 'midi' && (
        <Switch
          size="xs"
          mt={6}
          label="Tip and ring crossed: joins a type A and a type B socket"
          checked={lead.crossed === true}
          onChange={(e) =>
            edit({ edit: 'setLead', lead: lead.id, crossed: e.currentTarget.checked })
          }
        />
      )}
      {lead.type !== 'inside' && lead.type !== 'air' && lead.type !== 'speaker' && (
        <Switch
          size="xs"
          mt={6}
          label="Signal shield open at one end (never a protective earth)"
          checked={lead.shieldLifted === true}
          onChange={(e) =>
            edit({ edit: 'setLead', lead: lead.id, shieldLifted: e.currentTarget.checked })
          }
        />
      )}
    </>
  );
}

/** What kind of lead it is. */
function LeadType({ lead }: { lead: Lead }) {
  const edit = useRig((s) => s.edit);
  return (
    <Select
      size="xs"
      mt={4}
      label="Conductor of the TRS plug"
      clearable
      placeholder="as usual: tip out, ring back"
      data={[
        { value: 'tip', label: 'tip' },
        { value: 'ring', label: 'ring' },
      ]}
      value={lead.conductor ?? null}
      onChange={(v) =>
        edit({
          edit: 'setLead',
          lead: lead.id,
          conductor: v === 'tip' || v === 'ring' ? v : undefined,
        })
      }
    />
  );
}

/** How long the lead is and what was measured on it. */
function LeadMeasures({ lead }: { lead: Lead }) {
  const units = useRig((s) => s.units);
  const edit = useRig((s) => s.edit);
  return (
    <Group grow gap={8} mt={4}>
      <Measure
        label={
          lead.type === 'air'
            ? 'Distance, m'
            : `Length, m (${showLength(lead.metres, units.length)})`
        }
        value={lead.metres}
        max={500}
        onCommit={(metres) => edit({ edit: 'setLead', lead: lead.id, metres })}
      />
      <Measure
        label="pF per metre"
        value={lead.pfPerMetre ?? DEFAULT_PF_PER_METRE}
        max={2000}
        onCommit={(pfPerMetre) => edit({ edit: 'setLead', lead: lead.id, pfPerMetre })}
      />
    </Group>
  );
}

/** What the lead does to the signal: capacitance, resonance, loss. */
function LeadFigures({
  at,
  short,
  level,
  tone,
}: {
  at: PointFigures;
  short: (v: number) => string | undefined;
  level: (v: number | null | undefined) => string;
  tone: SectionTone | undefined;
}) {
  const rig = useDocument();
  return (
    <dl className="pairs figures">
      <dt>Level soft / normal / hard</dt>
      <dd>
        {at.levelDbu
          ? `${short(at.levelDbu.soft)} / ${short(at.levelDbu.normal)} / ${level(at.levelDbu.hard)}`
          : 'silent'}
      </dd>
      <dt>Peak</dt>
      <dd>{level(at.peakDbu)}</dd>
      <dt>Noise playing / idle</dt>
      <dd>
        {level(at.noiseDbu)} / {level(at.idleNoiseDbu)}
      </dd>
      <dt>Signal to noise</dt>
      <dd>
        {at.levelDbu && at.noiseDbu !== null
          ? `${fixed(at.levelDbu.normal - at.noiseDbu)} dB`
          : 'none'}
      </dd>
      <dt>Saturation</dt>
      <dd>
        {at.thdPercent
          ? `${fixed(at.thdPercent.normal)} %, ${touchWord(at.thdPercent.normal / 100)}`
          : 'none'}
      </dd>
      <dt>Latency so far</dt>
      <dd>{fixed(at.latencyMs ?? 0, 2)} ms</dd>
      <dt>Carries</dt>
      <dd>{at.sources.map((s) => nameOf(rig, s)).join(', ') || 'nothing'}</dd>
      <dt>Driven by</dt>
      <dd>{at.sourceOhms === null ? 'nothing' : withPrefix(at.sourceOhms, 'Ω')}</dd>
      <dt>Loaded by</dt>
      <dd>{at.loadOhms === null ? 'nothing' : withPrefix(at.loadOhms, 'Ω')}</dd>
      <dt>Lost between</dt>
      <dd>{at.lossDb === null ? 'none' : `${fixed(at.lossDb, 2)} dB`}</dd>
      <dt>Lead capacitance of the section</dt>
      <dd>{Math.round(at.leadPf)} pF</dd>
      {tone && (
        <>
          <dt>At 5 kHz</dt>
          <dd>{fixed(tone.at5kHzDb, 2)} dB</dd>
          <dt>3 dB under 1 kHz</dt>
          <dd>{tone.minus3dBHz === null ? 'above 100 MHz' : withPrefix(tone.minus3dBHz, 'Hz')}</dd>
        </>
      )}
    </dl>
  );
}

/** A measure of a lead, from nothing up to the most that a rig file takes. */
function Measure({
  label,
  value,
  max,
  onCommit,
}: {
  label: string;
  value: number;
  max: number;
  onCommit: (v: number) => void;
}) {
  return (
    <CommitNumber
      label={label}
      value={value}
      min={0}
      max={max}
      step={0.1}
      onCommit={(v) => v !== undefined && onCommit(v)}
    />
  );
}
