'use client';
import { Button, Group, Modal, Select } from '@mantine/core';
import { useState } from 'react';
import { KINDS, kindOf } from '../../../core/kinds';
import {
  type Assembly,
  withControlsOf,
  withoutPart,
  withOwnSwitch,
  withPartBehind,
  withPartBeside,
} from '../../../core/rig';
import { CommitText } from '../../look/commit-text';
import { TakeOut } from '../../look/take-out';
import { KindList } from '../../look/kind-list';
import type { Change } from './sheet-editor';

/** Kinds that can be a part of a box: those that hold no blocks of their own. */
export const PARTS = KINDS.filter((k) => !k.hosts);

const ENGAGED = [
  { value: 'box', label: "with the box's switch" },
  { value: 'always', label: 'always' },
  { value: 'never', label: 'by a control only' },
];

/** Whether a control of the box engages a part. */
const hasOwnSwitch = (sheet: Assembly, part: string): boolean =>
  sheet.controls.some((c) => c.moves.some((m) => m.part === part && m.setting === 'engaged'));

/** What is in the box, in order; more is put behind what is there or beside it. */
export function PartsTable({ sheet, onChange }: { sheet: Assembly; onChange: Change<Assembly> }) {
  const [way, setWay] = useState<'behind' | 'beside' | null>(null);
  const put = (id: string, fields: Partial<Assembly['parts'][number]>) =>
    onChange({
      ...sheet,
      parts: sheet.parts.map((p) => (p.id === id ? { ...p, ...fields } : p)),
    });
  return (
    <>
      <table className="sheet-table" data-table="parts">
        <thead>
          <tr>
            <th>Part</th>
            <th>Kind</th>
            <th>Engaged</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {sheet.parts.map((p) => (
            <tr key={p.id} data-part={p.id}>
              <td>
                <CommitText
                  w={190}
                  needed
                  maxLength={120}
                  aria-label={`Name of ${p.name}`}
                  value={p.name}
                  onCommit={(name = p.name) => put(p.id, { name })}
                />
              </td>
              <td>{kindOf(p.kind).name}</td>
              <td>
                {kindOf(p.kind).alwaysOn ? (
                  'always'
                ) : (
                  <Select
                    size="xs"
                    w={190}
                    aria-label={`When ${p.name} is engaged`}
                    allowDeselect={false}
                    data={ENGAGED}
                    value={p.engaged ?? 'box'}
                    onChange={(v) =>
                      put(p.id, { engaged: v === 'always' || v === 'never' ? v : 'box' })
                    }
                  />
                )}
              </td>
              <td>
                <Group gap={6} wrap="nowrap">
                  {!kindOf(p.kind).alwaysOn && !hasOwnSwitch(sheet, p.id) && (
                    <Button
                      size="compact-xs"
                      variant="default"
                      aria-label={`A switch of its own for ${p.name}`}
                      onClick={() => onChange(withOwnSwitch(sheet, p.id))}
                    >
                      A switch of its own
                    </Button>
                  )}
                  <Button
                    size="compact-xs"
                    variant="default"
                    aria-label={`Bring out all controls of ${p.name}`}
                    onClick={() => onChange(withControlsOf(sheet, p))}
                  >
                    All its controls
                  </Button>
                  {sheet.parts.length > 1 && (
                    <TakeOut
                      what={`Take ${p.name} out of the box`}
                      onClick={() => onChange(withoutPart(sheet, p.id))}
                    />
                  )}
                </Group>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Group gap={6} mt={6}>
        <Button size="xs" variant="default" onClick={() => setWay('behind')}>
          Add behind …
        </Button>
        <Button size="xs" variant="default" onClick={() => setWay('beside')}>
          Add beside …
        </Button>
      </Group>
      <Modal
        opened={way !== null}
        onClose={() => setWay(null)}
        title={way === 'beside' ? 'What is beside it?' : 'What comes next in the box?'}
        size="xl"
        centered
      >
        <KindList
          kinds={PARTS}
          onPick={(k) => {
            setWay(null);
            onChange(way === 'beside' ? withPartBeside(sheet, k.id) : withPartBehind(sheet, k.id));
          }}
        />
      </Modal>
    </>
  );
}
