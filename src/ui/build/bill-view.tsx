'use client';
import { ActionIcon, Button, Group, MultiSelect } from '@mantine/core';
import { IconArrowUp, IconX } from '@tabler/icons-react';
import { billOf, cutList, makingOf, packingOf } from '../../core/build';
import type { Piece } from '../../core/build/packing';
import { at, type Outcome } from '../../core/outcome';
import { freshId, type Rig } from '../../core/rig';
import { fixed } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { save } from '../look/save-file';
import { useDocument, useRig } from '../store/use-rig';
import { CommitText } from '../look/commit-text';

type Case = NonNullable<Rig['cases']>[number];

/**
 * Everything the rig is made of with what is there and what is to buy, and the cases it travels in,
 * in load-in order.
 */
export function BillView() {
  const rig = useDocument();
  const setNotice = useRig((s) => s.setNotice);
  const list = cutList(rig);
  const bill = billOf(rig, list);
  const buy = bill.filter((l) => l.state === 'to buy');
  const work = list.hours * makingOf(rig).hourPrice;
  const write = () =>
    import('../../core/formats').then(
      (f) => save(`${rig.id}-bill.csv`, f.billCsv(rig), 'text/csv;charset=utf-8'),
      (e: unknown) =>
        setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`),
    );
  return (
    <div className="scroll common-box" data-place="bill">
      <div className="two-wide">
        <section>
          <Group gap={10}>
            <h3 className="common-gap">Bill of materials</h3>
            <Button size="xs" variant="default" onClick={() => void write()}>
              Bill as CSV
            </Button>
          </Group>
          <p data-bill-sum className="common-gap">
            <strong>{Math.round(bill.reduce((s, l) => s + l.price, 0) + work)}</strong> in all
            {work ? `, ${Math.round(work)} of it work` : ''}; to buy:{' '}
            {buy.length
              ? `${buy.map((l) => l.item).join('; ')} (${Math.round(buy.reduce((s, l) => s + l.price, 0))})`
              : 'nothing marked'}
            .
          </p>
          <table className="sheet-table figures" data-table="bill">
            <thead>
              <tr>
                <th>What</th>
                <th>Item</th>
                <th>Count</th>
                <th>Weight</th>
                <th>Price</th>
                <th>State</th>
              </tr>
            </thead>
            <tbody>
              {bill.map((l, i) => (
                <tr key={i}>
                  <td>{l.what}</td>
                  <td>
                    <strong>{l.item}</strong>
                  </td>
                  <td>
                    {l.count}
                    {l.unit === 'm' ? ' m' : ''}
                  </td>
                  <td>
                    {l.grams === undefined
                      ? ''
                      : `${fixed((l.grams * (l.unit === 'piece' ? l.count : 1)) / 1000, 2)} kg`}
                  </td>
                  <td>{l.price ? fixed(l.price, 0) : ''}</td>
                  <td>{l.state === 'not said' ? '' : l.state}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="faint common-text-2">
            Prices of devices are set under Gear, of cable, plugs and an hour’s work under Leads.
          </p>
        </section>
        <Cases rig={rig} />
      </div>
    </div>
  );
}

/** Cases with what they hold, their weights, in the order in which they are loaded in. */
function Cases({ rig }: { rig: Rig }) {
  const edit = useRig((s) => s.edit);
  const cases = rig.cases ?? [];
  const packing = packingOf(rig);
  const set = (list: Case[]) => edit({ edit: 'setCases', cases: list });
  const change = (id: string, c: Partial<Case>) =>
    set(cases.map((x) => (x.id === id ? { ...x, ...c } : x)));
  const things = [
    ...(rig.boards ?? []),
    ...(rig.racks ?? []),
    ...rig.devices.filter((d) => d.host === undefined && !d.at && !d.rack && d.place !== 'house'),
  ].map((x) => ({ value: x.id, label: x.name }));
  return (
    <section data-cases>
      <Group gap={10}>
        <h3 className="common-gap">Cases, in load-in order</h3>
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            set([
              ...cases,
              {
                id: freshId(
                  'case',
                  cases.map((c) => c.id),
                ),
                name: `Case ${cases.length + 1}`,
                holds: [],
              },
            ])
          }
        >
          Add a case
        </Button>
      </Group>
      {packing.pieces.map((p) => {
        const c = cases.find((x) => x.id === p.id);
        return (
          <CaseCard
            key={p.id}
            p={p}
            c={c}
            change={change}
            cases={cases}
            set={set}
            things={things}
          />
        );
      })}
      {packing.pieces.length === 0 && (
        <div className="empty">
          Nothing is packed. Add a case and say what it holds; boards and racks travel as they are
          until they are in one.
        </div>
      )}
      {packing.loose.length > 0 && (
        <p data-loose>
          <strong>In no case yet:</strong> {packing.loose.map((d) => d.name).join(', ')}.
        </p>
      )}
      {packing.coiled.length > 0 && (
        <p data-coiled>
          <strong>Coiled, mains leads, spares:</strong>{' '}
          {packing.coiled
            .map(
              (c) =>
                `${c.what === 'spare' ? 'spare ' : ''}${c.count > 1 ? `${c.count} × ` : ''}${c.words}`,
            )
            .join('; ')}
          .
        </p>
      )}
      <p>
        <strong>{fixed(packing.grams / 1000)} kg</strong> in all, leads at typical grams a metre.
      </p>
      {packing.twice.length > 0 && (
        <p role="alert">
          <strong>In two cases:</strong> {packing.twice.map((d) => d.name).join(', ')}.
        </p>
      )}
      <p className="faint common-text-2">
        Over about 23 kg two persons lift. Limits of airlines vary: weigh the packed case.
      </p>
    </section>
  );
}

/** One case: its size and weight, and what lies in it. */
function CaseCard({
  p,
  c,
  change,
  cases,
  set,
  things,
}: {
  p: Piece;
  c: Case | undefined;
  change: (id: string, c: Partial<Case>) => Outcome<Rig>;
  cases: Case[];
  set: (list: Case[]) => Outcome<Rig>;
  things: { value: string; label: string }[];
}) {
  return (
    <div className="case" data-case={p.id}>
      <Group gap={6} wrap="nowrap">
        <strong className="figures">{p.order}</strong>
        {c ? (
          <CommitText
            className="fills"
            aria-label={`Name of case ${p.order}`}
            needed
            value={c.name}
            onCommit={(name) => change(c.id, { name })}
          />
        ) : (
          <strong className="fills">
            {p.name} <span className="faint">in no case</span>
          </strong>
        )}
        <span className="figures cases-text">
          {fixed(p.grams / 1000)} kg{p.unweighed ? ' and more' : ''}
          {p.lift ? ', two lift' : ''}
        </span>
        {c && (
          <CommitNumber
            w={92}
            aria-label={`Empty weight of ${c.name}, g`}
            placeholder="empty, g"
            suffix=" g"
            min={0}
            max={1e6}
            value={c.grams}
            onCommit={(grams) => change(c.id, { grams })}
          />
        )}
        {c && (
          <ActionIcon
            size="sm"
            variant="subtle"
            aria-label={`${c.name} earlier`}
            disabled={at(cases, 0).id === c.id}
            onClick={() => {
              const i = cases.indexOf(c);
              set([...cases.slice(0, i - 1), c, at(cases, i - 1), ...cases.slice(i + 1)]);
            }}
          >
            <IconArrowUp size={14} />
          </ActionIcon>
        )}
        {c && (
          <ActionIcon
            size="sm"
            variant="subtle"
            aria-label={`Strike out ${c.name}`}
            onClick={() => set(cases.filter((x) => x !== c))}
          >
            <IconX size={14} />
          </ActionIcon>
        )}
      </Group>
      {c && (
        <MultiSelect
          size="xs"
          searchable
          aria-label={`What ${c.name} holds`}
          placeholder="holds …"
          data={things}
          value={c.holds}
          onChange={(holds) => change(c.id, { holds })}
        />
      )}
    </div>
  );
}
