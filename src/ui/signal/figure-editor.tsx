'use client';
import { ActionIcon, Button, NumberInput, SegmentedControl, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconPencil } from '@tabler/icons-react';
import { useState } from 'react';
import { type Figure, kindOf } from '../../core/kinds';
import type { Device } from '../../core/rig';
import { showFigure } from '../../core/units';
import { useRig } from '../store/use-rig';
import { costFigures } from './cost-figures';

/** The electrical figures of a device, each with where it comes from, and a way to put a better one in its place. */
export function FigureEditor({ device }: { device: Device }) {
  const [open, setOpen] = useState<string | null>(null);
  const edit = useRig((s) => s.edit);
  const figures = [...kindOf(device.kind).figures, ...costFigures(device)];
  if (figures.length === 0)
    return <div className="faint">Metal only: it has no electrical figures of its own.</div>;
  return (
    <table className="sheet-table figure-editor-text">
      <tbody>
        {figures.map((f) => {
          const own = device.figures?.[f.id];
          return (
            <tr key={f.id} data-figure={f.id}>
              <td>
                {f.label}
                <div className="faint common-text">
                  {own
                    ? `${own.from}${own.on ? `, ${own.on}` : ''}; typical is ${showFigure(f.unit, f.typical)}`
                    : `typical: ${f.reason}`}
                </div>
                {open === f.id && (
                  <Override device={device} figure={f} onDone={() => setOpen(null)} />
                )}
              </td>
              <td className="figures figure-editor-td">
                {showFigure(f.unit, own?.value ?? f.typical)}
              </td>
              <td className="figure-editor-box">
                <Tooltip label={`Give ${f.label} from a sheet or a measurement`}>
                  <ActionIcon
                    variant="subtle"
                    size="sm"
                    aria-label={`Change ${f.label}`}
                    onClick={() => setOpen(open === f.id ? null : f.id)}
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
                      onClick={() => edit({ edit: 'clearFigure', device: device.id, figure: f.id })}
                    >
                      <IconArrowBackUp size={14} />
                    </ActionIcon>
                  </Tooltip>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Override({
  device,
  figure,
  onDone,
}: {
  device: Device;
  figure: Figure;
  onDone: () => void;
}) {
  const edit = useRig((s) => s.edit);
  const [value, setValue] = useState<number | string>(
    device.figures?.[figure.id]?.value ?? figure.typical,
  );
  const [from, setFrom] = useState<'sheet' | 'measured'>(
    device.figures?.[figure.id]?.from ?? 'sheet',
  );
  return (
    <form
      className="override-columns"
      onSubmit={(e) => {
        e.preventDefault();
        if (typeof value !== 'number') return;
        const today = new Date().toISOString().slice(0, 10);
        const done = edit({
          edit: 'overrideFigure',
          device: device.id,
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
