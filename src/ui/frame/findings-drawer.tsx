'use client';
import { Drawer, SegmentedControl, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { type Finding, SEVERITIES } from '../../core/findings/finding';
import { mostTurned, type ToMeasure } from '../../core/report';
import { nameOf, type Rig } from '../../core/rig';
import type { FindingsFilter } from '../store/rig-store';
import { useDocument, useRig } from '../store/use-rig';
import { CureAll } from './cure-all';
import { FindingCard } from './finding-card';
import { type Measuring, MeasurePart } from './measure-part';
import { Schools } from './schools';
import { useTrials, waysOf } from './use-trials';
import { useWorking } from '../look/use-working';

/**
 * All findings, worst first, with reasons, fixes and what was accepted; and the schools that order
 * advice follows.
 */
export function FindingsDrawer({ goToSignal }: { goToSignal: () => void }) {
  const open = useRig((s) => s.findingsOpen);
  const openFindings = useRig((s) => s.openFindings);
  const findings = useRig((s) => s.report.findings);
  const isBehind = useRig((s) => s.isBehind);
  const trials = useTrials(open);
  const measuring = useMeasuring();
  const [part, setPart] = useState('open');
  const filter = useRig((s) => s.findingsFilter);
  const { rig } = useRig((s) => s.history);
  const all = findings.filter((f) => (f.accepted !== undefined) === (part === 'accepted'));
  const list = all.filter((f) => isWanted(rig, f, filter));
  return (
    <Drawer
      opened={open}
      onClose={() => openFindings(false)}
      position="right"
      size={560}
      title="Findings"
    >
      <SegmentedControl
        fullWidth
        size="xs"
        value={part}
        onChange={setPart}
        data={[
          {
            value: 'open',
            label: `Open (${findings.filter((f) => f.accepted === undefined).length})`,
          },
          {
            value: 'accepted',
            label: `Accepted (${findings.filter((f) => f.accepted !== undefined).length})`,
          },
          { value: 'schools', label: 'Order rules' },
          { value: 'measure', label: 'Measure' },
        ]}
      />
      {part === 'schools' ? (
        <Schools />
      ) : part === 'measure' ? (
        <MeasurePart measuring={measuring} />
      ) : all.length ? (
        <>
          {part === 'open' && <CureAll trials={trials} />}
          <FilterRow shown={list.length} of={all.length} />
          {groupsOf(list).map(({ rule, findings: together }) => (
            <section key={rule} data-group={rule}>
              {together.length > 1 && <h3>{together.length} of one kind</h3>}
              {together.map((f) => (
                <FindingCard
                  key={f.key}
                  finding={f}
                  ways={waysOf(trials, f)}
                  hangsOn={hangsOn(measuring, f)}
                  goToSignal={goToSignal}
                />
              ))}
            </section>
          ))}
          {!list.length && (
            <div className="empty findings-drawer-gap">No finding is like that.</div>
          )}
        </>
      ) : (
        <div className="empty findings-drawer-gap">
          {isBehind
            ? 'The rig is being judged. What there is to say comes in a moment.'
            : part === 'open'
              ? 'Nothing to say against this rig.'
              : 'No finding has been accepted.'}
        </div>
      )}
    </Drawer>
  );
}

/** Whether a finding is of the severity and sound that are wanted, and has the words in what is said of it. */
function isWanted(rig: Rig, f: Finding, { severity, sound, text }: FindingsFilter): boolean {
  const said = [f.what, f.why, ...f.subjects.map((id) => nameOf(rig, id))].join(' ').toLowerCase();
  const words = (text ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  return (
    (severity === undefined || f.severity === severity) &&
    (sound === undefined || f.sounds.includes(sound)) &&
    words.every((w) => said.includes(w))
  );
}

/** Findings of one rule together, each group where its worst stands. */
function groupsOf(findings: readonly Finding[]): { rule: string; findings: Finding[] }[] {
  const groups = new Map<string, Finding[]>();
  for (const f of findings) groups.set(f.rule, [...(groups.get(f.rule) ?? []), f]);
  return [...groups].map(([rule, together]) => ({ rule, findings: together }));
}

/** Which findings are listed: by severity, by sound, by words. */
function FilterRow({ shown, of }: { shown: number; of: number }) {
  const rig = useDocument();
  const filter = useRig((s) => s.findingsFilter);
  const filterFindings = useRig((s) => s.filterFindings);
  const set = (part: FindingsFilter) => filterFindings({ ...filter, ...part });
  return (
    <div className="findings-filter">
      <TextInput
        size="xs"
        className="fills"
        aria-label="Words in a finding"
        placeholder="a device, a word …"
        value={filter.text ?? ''}
        onChange={(e) => set({ text: e.currentTarget.value || undefined })}
      />
      <Select
        size="xs"
        clearable
        aria-label="Severity"
        placeholder="any severity"
        data={[...SEVERITIES]}
        value={filter.severity ?? null}
        onChange={(v) => set({ severity: SEVERITIES.find((s) => s === v) })}
      />
      <Select
        searchable
        size="xs"
        clearable
        aria-label="Sound"
        placeholder="any sound"
        data={rig.sounds.map((s) => ({ value: s.id, label: s.name }))}
        value={filter.sound ?? null}
        onChange={(v) => set({ sound: v ?? undefined })}
      />
      {shown < of && (
        <span className="faint small-print">
          {shown} of {of}
        </span>
      )}
    </div>
  );
}

/** What to measure, kept while the drawer is shut. */
function useMeasuring(): Measuring {
  const rig = useDocument();
  const { work, start, cancel } = useWorking('measure');
  const [of, setOf] = useState<Rig | null>(null);
  const begin = () => {
    setOf(rig);
    // Each device has a handful of figures, and each of them is tried by itself.
    start({ rig }, { pieces: 4 * rig.devices.length, join: (all) => mostTurned(all.flat()) });
  };
  return { work, of, begin, cancel };
}

/** Figures that were found to turn a finding, where that was looked for. */
const hangsOn = ({ work }: Measuring, finding: Finding): ToMeasure[] =>
  work.state === 'done'
    ? work.answer.filter((m) => m.turns.some((t) => t.id === finding.key && !t.appears))
    : [];
