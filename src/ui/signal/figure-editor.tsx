'use client';
import { ActionIcon, Button, NumberInput, SegmentedControl, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconPencil } from '@tabler/icons-react';
import equal from 'fast-deep-equal';
import { memo, useState } from 'react';
import { type Figure, kindOf } from '../../core/kinds';
import type { Device } from '../../core/rig';
import type { FigureOverride } from '../../core/rig/schema';
import { showFigure } from '../../core/units';
import { useRig } from '../store/use-rig';
import { costFigures } from './cost-figures';

/** The electrical figures of a device, each with where it comes from, and a way to put a better one in its place. */
export function FigureEditor({ device }: { device: Device }) {
  const [open, setOpen] = useState<string | null>(null);
  const figures = [...kindOf(device.kind).figures, ...costFigures(device)];
  if (figures.length === 0)
    return <div className="faint">Metal only: it has no electrical figures of its own.</div>;
  return (
    <table className="sheet-table figure-editor-text">
      <tbody>
        {figures.map((f) => (
          <FigureRow
            key={f.id}
            device={device.id}
            figure={f}
            own={device.figures?.[f.id]}
            isOpen={open === f.id}
            onOpen={setOpen}
          />
        ))}
      </tbody>
    </table>
  );
}

/** One figure of a device, by its id. */
interface OneFigure {
  device: string;
  figure: Figure;
  /** What stands in the place of the typical figure. */
  own: FigureOverride | undefined;
}

const FigureRow = memo(function FigureRow({
  device,
  figure: f,
  own,
  isOpen,
  onOpen,
}: OneFigure & { isOpen: boolean; onOpen: (figure: string | null) => void }) {
  const edit = useRig((s) => s.edit);
  return (
    <tr data-figure={f.id}>
      <td>
        {f.label}
        <div className="faint common-text">
          {own
            ? `${own.from}${own.on ? `, ${own.on}` : ''}; typical is ${showFigure(f.unit, f.typical)}`
            : `typical: ${f.reason}`}
        </div>
        {isOpen && <Override {...{ device, figure: f, own }} onDone={() => onOpen(null)} />}
      </td>
      <td className="figures figure-editor-td">{showFigure(f.unit, own?.value ?? f.typical)}</td>
      <td className="figure-editor-box">
        <Tooltip label={`Give ${f.label} from a sheet or a measurement`}>
          <ActionIcon
            variant="subtle"
            size="sm"
            aria-label={`Change ${f.label}`}
            onClick={() => onOpen(isOpen ? null : f.id)}
          >
            <IconPencil size={14} />
          </ActionIcon>
        </Tooltip>
        {own && (
          <Tooltip label="Back to the typical figure">
            <ActionIcon
              variant="subtle"
              size="sm"
              aria-label={`Typical ${f.label}`}
              onClick={() => edit({ edit: 'clearFigure', device, figure: f.id })}
            >
              <IconArrowBackUp size={14} />
            </ActionIcon>
          </Tooltip>
        )}
      </td>
    </tr>
  );
}, equal);

function Override({ device, figure, own, onDone }: OneFigure & { onDone: () => void }) {
  const edit = useRig((s) => s.edit);
  const [value, setValue] = useState<number | string>(own?.value ?? figure.typical);
  const [from, setFrom] = useState<'sheet' | 'measured'>(own?.from ?? 'sheet');
  return (
    <form
      className="override-columns"
      onSubmit={(e) => {
        e.preventDefault();
        if (typeof value !== 'number') return;
        const today = new Date().toISOString().slice(0, 10);
        const done = edit({
          edit: 'overrideFigure',
          device,
          figure: figure.id,
          override: { value, from, ...(from === 'measured' && { on: today }) },
        });
        if (done.ok) onDone();
      }}
    >
      <NumberInput
        size="xs"
        label={`${figure.label}, ${figure.unit || 'ratio'}`}
        description={`${figure.min} to ${figure.max} ${figure.unit}`}
        value={value}
        onChange={setValue}
        data-autofocus
      />
      <SegmentedControl
        size="xs"
        value={from}
        onChange={(v) => setFrom(v === 'measured' ? 'measured' : 'sheet')}
        data={[
          { value: 'sheet', label: 'from the sheet' },
          { value: 'measured', label: 'measured' },
        ]}
      />
      <Button size="xs" type="submit">
        Use this figure
      </Button>
    </form>
  );
}
