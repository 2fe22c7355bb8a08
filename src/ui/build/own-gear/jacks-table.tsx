'use client';
import { Group, MultiSelect, Select } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { type Assembly, freshId, type InnerJack } from '../../../core/rig';
import { CommitText } from '../../look/commit-text';
import { TakeOut } from '../../look/take-out';
import type { Change } from './sheet-editor';

const keyOf = ({ part, jack }: InnerJack) => `${part}/${jack}`;
const readKey = (key: string): InnerJack => {
  const [part = '', jack = ''] = key.split('/');
  return { part, jack };
};

/** Every jack inside, as a person finds it: the part and what the jack is called. */
const innerJacks = (sheet: Assembly) =>
  sheet.parts.flatMap((p) =>
    kindOf(p.kind).jacks.map((j) => ({
      value: keyOf({ part: p.id, jack: j.id }),
      label: `${p.name}: ${j.label}`,
      direction: j.direction,
    })),
  );

/** The jacks that a lead can reach, and what each is tied to inside; links between parts below. */
export function JacksTable({ sheet, onChange }: { sheet: Assembly; onChange: Change<Assembly> }) {
  const inside = innerJacks(sheet);
  const tied = new Set(sheet.jacks.flatMap((j) => j.at.map(keyOf)));
  const put = (id: string, fields: Partial<Assembly['jacks'][number]>) =>
    onChange({
      ...sheet,
      jacks: sheet.jacks.map((j) => (j.id === id ? { ...j, ...fields } : j)),
    });
  const bringOut = (key: string) => {
    const at = readKey(key);
    const label = inside.find((x) => x.value === key)?.label ?? at.jack;
    const id = freshId(
      at.jack,
      sheet.jacks.map((j) => j.id),
    );
    onChange({ ...sheet, jacks: [...sheet.jacks, { id, label, at: [at] }] });
  };
  return (
    <>
      <table className="sheet-table" data-table="box-jacks">
        <thead>
          <tr>
            <th>On the box</th>
            <th>Tied to</th>
            <th>Other side of</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {sheet.jacks.map((j) => (
            <tr key={j.id} data-box-jack={j.id}>
              <td>
                <CommitText
                  w={170}
                  needed
                  maxLength={120}
                  aria-label={`Name of the jack ${j.label}`}
                  value={j.label}
                  onCommit={(label = j.label) => put(j.id, { label })}
                />
              </td>
              <td>
                <MultiSelect
                  size="xs"
                  w={330}
                  searchable
                  aria-label={`What ${j.label} is tied to`}
                  data={inside}
                  value={j.at.map(keyOf)}
                  onChange={(keys) => put(j.id, { at: keys.map(readKey) })}
                />
              </td>
              <td>
                <Select
                  searchable
                  size="xs"
                  w={130}
                  clearable
                  aria-label={`The jack that ${j.label} is the other side of`}
                  data={sheet.jacks
                    .filter((x) => x.id !== j.id)
                    .map((x) => ({ value: x.id, label: x.label }))}
                  value={j.pair?.with ?? null}
                  onChange={(other) => onChange(paired(sheet, j.id, other))}
                />
              </td>
              <td>
                <TakeOut
                  what={`Take the jack ${j.label} off the box`}
                  onClick={() =>
                    onChange(
                      paired(
                        { ...sheet, jacks: sheet.jacks.filter((x) => x.id !== j.id) },
                        j.pair?.with ?? '',
                        null,
                      ),
                    )
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Select
        size="xs"
        mt={6}
        w={330}
        searchable
        aria-label="Bring out a jack"
        placeholder="bring out another jack …"
        data={inside.filter((x) => !tied.has(x.value))}
        value={null}
        onChange={(key) => key && bringOut(key)}
      />
      <Links sheet={sheet} onChange={onChange} />
    </>
  );
}

/** A box in which two jacks are the sides of one way, the other one the left; or one stands alone. */
function paired(sheet: Assembly, id: string, other: string | null): Assembly {
  const was = sheet.jacks.find((j) => j.id === id)?.pair?.with;
  return {
    ...sheet,
    jacks: sheet.jacks.map((j) => {
      const { pair: _pair, ...bare } = j;
      if (other !== null && j.id === id) return { ...bare, pair: { with: other, side: 'right' } };
      if (other !== null && j.id === other) return { ...bare, pair: { with: id, side: 'left' } };
      return j.id === id || j.id === was || j.pair?.with === id ? bare : j;
    }),
  };
}

/** The links between parts, each from an output to an input. */
function Links({ sheet, onChange }: { sheet: Assembly; onChange: Change<Assembly> }) {
  const inside = innerJacks(sheet);
  const label = (at: InnerJack) => inside.find((x) => x.value === keyOf(at))?.label ?? keyOf(at);
  const linkTo = (from: string, to: string) =>
    onChange({ ...sheet, links: [...sheet.links, { from: readKey(from), to: readKey(to) }] });
  return (
    <>
      <h3>Links inside</h3>
      <ul className="own-gear-links" data-list="links">
        {sheet.links.map((l, i) => (
          <li key={`${keyOf(l.from)} ${keyOf(l.to)}`}>
            {label(l.from)} → {label(l.to)}{' '}
            <TakeOut
              what={`Undo the link from ${label(l.from)} to ${label(l.to)}`}
              onClick={() =>
                onChange({ ...sheet, links: sheet.links.filter((_, other) => other !== i) })
              }
            />
          </li>
        ))}
      </ul>
      <NewLink
        outs={inside.filter((x) => x.direction !== 'in')}
        ins={inside.filter((x) => x.direction !== 'out')}
        onLink={linkTo}
      />
    </>
  );
}

interface Choice {
  value: string;
  label: string;
}

/** Links an output with an input: the second that is chosen makes the link. */
function NewLink({
  outs,
  ins,
  onLink,
}: {
  outs: readonly Choice[];
  ins: readonly Choice[];
  onLink: (from: string, to: string) => void;
}) {
  const [from, setFrom] = useState<string | null>(null);
  return (
    <Group gap={6}>
      <Select
        size="xs"
        w={240}
        searchable
        clearable
        aria-label="Link from"
        placeholder="link from …"
        data={[...outs]}
        value={from}
        onChange={setFrom}
      />
      <Select
        size="xs"
        w={240}
        searchable
        disabled={from === null}
        aria-label="Link to"
        placeholder="to …"
        data={[...ins]}
        value={null}
        onChange={(to) => {
          if (from === null || to === null) return;
          onLink(from, to);
          setFrom(null);
        }}
      />
    </Group>
  );
}
