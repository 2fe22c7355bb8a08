'use client';
import { Button, Group, NumberInput } from '@mantine/core';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { AIMS, HEADROOM, loadsOf, powerLeadsByPlugs, takersOf, unfed } from '../../../core/build';
import type { Taker } from '../../../core/build/power';
import type { PowerPlan } from '../../../core/build/power-plan';
import { type Outcome, reasonOf } from '../../../core/outcome';
import { outletsOf } from '../../../core/rig';
import { howMany, showLength } from '../../../core/units';
import { save } from '../../look/save-file';
import { useWorking, type WorkState } from '../../look/use-working';
import { useDocument, useRig } from '../../store/use-rig';
import type { Proposals } from '../../../worker/messages';
import { MainsPart } from '../mains-part';
import { OutletsTable } from './outlets-table';
import { PlanFound } from './plan-found';
import { HandsOn } from './hands-on';
import { SupplyOutlets } from './supply-outlets';
import { TakersTable } from './takers-table';

/** Time to look for a better plan, in seconds, where somebody asks for it. */
const A_MINUTE = 60;

/** Outlets and what hangs on them, what each device takes, and a plan that gives outlets out exactly. */
export function PowerView() {
  const rig = useDocument();
  const setNotice = useRig((s) => s.setNotice);
  const [spare, setSpare] = useState<number | string>(HEADROOM * 100);
  const headroom = Math.min(200, Math.max(0, Number(spare) || 0)) / 100;
  const { work, start, cancel, clear } = useWorking('power');
  // What was found stays, and can be taken, while a better one is looked for.
  const longer = useWorking('power');
  const leave = () => {
    longer.cancel();
    longer.clear();
    clear();
  };
  const [asked, setAsked] = useState<unknown>(null);
  const loads = loadsOf(rig, headroom);
  const takers = takersOf(rig);
  const without = unfed(rig);
  const write = () =>
    import('../../../core/formats').then(
      (f) => save(`${rig.id}-power.csv`, f.powerPlanCsv(rig), 'text/csv;charset=utf-8'),
      (e: unknown) =>
        setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`),
    );
  const found = longer.work.state === 'done' ? longer.work : work;
  const proposed = found.state === 'done' ? found.answer : null;
  return (
    <div className="scroll power-view-box" data-place="power">
      <PowerHead
        spare={spare}
        setSpare={setSpare}
        work={work}
        setAsked={setAsked}
        start={(ask) => {
          leave();
          start(ask);
        }}
        headroom={headroom}
        write={write}
        takers={takers}
        without={without}
      />
      {work.state === 'working' && <Looking words="Working it out …" onStop={cancel} />}
      {[work, longer.work].map(
        (w) =>
          w.state === 'failed' && (
            <p role="alert" key={w.why}>
              It stopped: {w.why}. Nothing was changed; try again.
            </p>
          ),
      )}
      {proposed && (
        <section className="verdict common-gap-6" data-plan>
          {!proposed.ok ? (
            reasonOf(proposed)
          ) : asked !== rig ? (
            'The rig has changed since. Plan again before you take it.'
          ) : (
            <PlanFound
              plan={proposed.value}
              onDone={leave}
              longer={
                longer.work.state === 'working' ? (
                  <Looking words="Looking for a better one …" onStop={longer.cancel} />
                ) : longer.work.state === 'done' ? null : (
                  <Button
                    size="compact-xs"
                    variant="default"
                    onClick={() => longer.start({ rig, headroom, seconds: A_MINUTE / AIMS.length })}
                  >
                    Look for up to a minute
                  </Button>
                )
              }
            />
          )}
        </section>
      )}
      <div className="power-view-columns">
        <section>
          <Group gap={8}>
            <h3>Outlets</h3>
            {rig.devices
              .filter((d) => outletsOf(d))
              .map((d) => (
                <SupplyOutlets key={d.id} supply={d} />
              ))}
            <HandsOn takers={takers} />
          </Group>
          <OutletsTable loads={loads} />
        </section>
        <section>
          <h3>Devices</h3>
          <TakersTable takers={takers} />
        </section>
      </div>
      <PowerLeads />
      <MainsPart />
      <p className="faint common-text-2">
        A plan keeps voltage or range, AC or DC, polarity, current with headroom, a supply’s total;
        digital apart from high gain and positive ground from all others, on an outlet and on a
        shared return. None is better, unless it says that one may be. Figures are typical until you
        put in those of the label. Supplies and mains: what their makers say, local electrical codes
        and licensed practice come first.
      </p>
    </div>
  );
}

/** Something that is looked for, and a way to stop it. */
const Looking = ({ words, onStop }: { words: string; onStop: () => void }) => (
  <Group gap={8} role="status">
    {words}
    <Button size="compact-xs" variant="default" onClick={onStop}>
      Stop
    </Button>
  </Group>
);

/** Plan the power, and what it comes to. */
function PowerHead({
  spare,
  setSpare,
  work,
  setAsked,
  start,
  headroom,
  write,
  takers,
  without,
}: {
  spare: string | number;
  setSpare: Dispatch<SetStateAction<string | number>>;
  work: WorkState<Outcome<PowerPlan>>;
  setAsked: Dispatch<unknown>;
  start: (ask: Proposals['power']['ask']) => void;
  headroom: number;
  write: () => Promise<void>;
  takers: Taker[];
  without: Taker[];
}) {
  const rig = useDocument();
  return (
    <Group gap={10} align="end">
      <NumberInput
        size="xs"
        w={130}
        label="Headroom, % of load"
        min={0}
        max={200}
        value={spare}
        onChange={setSpare}
      />
      <Button
        size="xs"
        disabled={work.state === 'working'}
        onClick={() => {
          setAsked(rig);
          start({ rig, headroom });
        }}
      >
        Plan the outlets
      </Button>
      <Button size="xs" variant="default" onClick={() => void write()}>
        As CSV
      </Button>
      <span className="small-print" data-power-sum>
        {takers.reduce((s, t) => s + t.need.milliamps, 0)} mA for {howMany(takers.length, 'device')}
        ;{' '}
        {without.length
          ? `${without.length} ${without.length === 1 ? 'has' : 'have'} no outlet`
          : 'each has an outlet'}
        .
      </span>
    </Group>
  );
}

/** The low-voltage leads to bring: which plugs, how long, to what. */
function PowerLeads() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const groups = powerLeadsByPlugs(rig);
  if (!groups.length) return null;
  return (
    <section data-power-leads>
      <h3>Power leads</h3>
      <ul className="figures power-leads-text">
        {groups.map(({ plugs, leads }) => (
          <li key={plugs}>
            <strong>{leads.length}</strong> {plugs}:{' '}
            {leads
              .map(
                (l) =>
                  `${l.device.name}${l.metres === null ? '' : ` ${showLength(l.metres, units.length)}`}`,
              )
              .join(', ')}
          </li>
        ))}
      </ul>
    </section>
  );
}
