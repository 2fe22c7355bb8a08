'use client';
import { Button, Group, Select } from '@mantine/core';
import { JOBS } from '../../../core/kinds';
import {
  type Assembly,
  type ChangedKind,
  checkSheet,
  kindOfSheet,
  type Sheet,
} from '../../../core/rig';
import { CommitLines, CommitText } from '../../look/commit-text';
import { CommitNumber } from '../../look/commit-number';
import { BoxFaces } from './box-faces-drawing';
import { BoxInsideDrawing } from './box-inside-drawing';
import { ChangesEditor } from './changes-editor';
import { ControlsTable } from './controls-table';
import { JacksTable } from './jacks-table';
import { LockerBar } from './locker-bar';
import { PartsTable } from './parts-table';
import { SheetBench } from './sheet-bench';
import { SheetFigures } from './sheet-figures';
import { SheetMessages } from './sheet-messages';
import { type SheetAtWork, useSheet } from './use-sheet';

/** How one part of the editor changes the sheet. */
export type Change<S extends Sheet = Sheet> = (next: S) => void;

/** All of one sheet, to be read and changed. */
export function SheetEditor({ sheet: stored }: { sheet: Sheet }) {
  const at = useSheet(stored);
  const { sheet, change } = at;
  return (
    <div data-sheet-editor={sheet.id}>
      <Unfinished at={at} />
      <LockerBar sheet={stored} onTake={change} />
      <Words sheet={sheet} onChange={change} />
      {sheet.is === 'parts' && <Inside sheet={sheet} onChange={change} />}
      {at.problems.length === 0 && <SheetBench sheet={sheet} />}
      {sheet.is === 'parts' ? (
        <Outside sheet={sheet} onChange={change} />
      ) : (
        <ChangesEditor sheet={sheet} onChange={change} />
      )}
      <Box sheet={sheet} onChange={change} />
      {at.problems.length === 0 && <BoxFaces sheet={sheet} onChange={change} />}
      {at.problems.length === 0 && <SheetFigures sheet={sheet} onChange={change} />}
      {at.problems.length === 0 && <SheetMessages sheet={sheet} onChange={change} />}
    </div>
  );
}

/** What keeps the sheet from standing in the rig, place by place. */
function Unfinished({ at }: { at: SheetAtWork }) {
  if (!at.problems.length) return null;
  return (
    <div role="alert" className="verdict wrong" data-sheet-problems>
      Not in the rig yet; put this right:
      <ul>
        {at.problems.map((p) => (
          <li key={`${p.where} ${p.what}`}>
            {p.where}: {p.what}
          </li>
        ))}
      </ul>
      <Button size="compact-xs" variant="default" onClick={at.forget}>
        Back to what is in the rig
      </Button>
    </div>
  );
}

/** What the box is called and what it is. */
function Words({ sheet, onChange }: { sheet: Sheet; onChange: Change }) {
  const put = (fields: Partial<Sheet>) => onChange({ ...sheet, ...fields } as Sheet);
  return (
    <div className="own-gear-words">
      <CommitText
        label="Name"
        needed
        maxLength={120}
        value={sheet.name}
        onCommit={(name = sheet.name) => put({ name })}
      />
      <CommitText label="Maker" value={sheet.maker} onCommit={(maker) => put({ maker })} />
      <CommitText label="Model" value={sheet.model} onCommit={(model) => put({ model })} />
      <Select
        size="xs"
        label="What it is for"
        placeholder="as what is in it"
        clearable
        searchable
        data={[...JOBS]}
        value={sheet.job ?? null}
        onChange={(v) => put({ job: JOBS.find((j) => j === v) })}
      />
      <CommitLines label="About" value={sheet.about} onCommit={(about) => put({ about })} />
      <CommitLines
        label="What this sheet cannot say"
        placeholder="such as: how the two channels share one tone stack"
        value={sheet.cannot}
        onCommit={(cannot) => put({ cannot })}
      />
      <CommitLines
        label="Notes"
        placeholder="such as: misbehaves with old firmware"
        value={sheet.notes}
        onCommit={(notes) => put({ notes })}
      />
    </div>
  );
}

/** The inside of a box of parts: its drawing, and what is in it. */
function Inside({ sheet, onChange }: { sheet: Assembly; onChange: Change<Assembly> }) {
  return (
    <>
      <h3>Inside</h3>
      <BoxInsideDrawing sheet={sheet} />
      <PartsTable sheet={sheet} onChange={onChange} />
    </>
  );
}

/** What a person can plug into and turn on a box of parts. */
function Outside({ sheet, onChange }: { sheet: Assembly; onChange: Change<Assembly> }) {
  return (
    <>
      <h3>Jacks of the box</h3>
      <JacksTable sheet={sheet} onChange={onChange} />
      <h3>Controls of the box</h3>
      <ControlsTable sheet={sheet} onChange={onChange} />
    </>
  );
}

/** Power, size, weight and price. A figure that is left empty is as of what is inside. */
function Box({ sheet, onChange }: { sheet: Sheet; onChange: Change }) {
  const put = (fields: Partial<ChangedKind>) => onChange({ ...sheet, ...fields } as Sheet);
  const power = sheet.power ?? { volts: 9, milliamps: 0 };
  // A weight alone can be told: what it measures is then what such a box usually does.
  const inside = checkSheet(sheet).ok ? kindOfSheet(sheet).size : undefined;
  const size = sheet.size ?? { width: 0, depth: 0, height: 0, ...inside, grams: 0 };
  const setPower = (fields: Partial<typeof power>) => {
    const next = { ...power, ...fields };
    put({ power: next.volts > 0 && next.milliamps > 0 ? next : undefined });
  };
  const setSize = (fields: Partial<typeof size>) => put({ size: { ...size, ...fields } });
  return (
    <>
      <h3>The box</h3>
      <Group gap={8} align="end">
        <CommitNumber
          w={92}
          label="Power, V"
          min={0}
          max={60}
          value={sheet.power?.volts}
          onCommit={(v = 0) => setPower({ volts: v })}
        />
        <CommitNumber
          w={92}
          label="mA"
          min={0}
          max={20_000}
          value={sheet.power?.milliamps}
          onCommit={(v = 0) => setPower({ milliamps: v })}
        />
        <CommitNumber
          w={92}
          label="Mains, W"
          min={0}
          max={20_000}
          value={sheet.mains?.watts}
          onCommit={(v) => put({ mains: v ? { ...sheet.mains, watts: v } : undefined })}
        />
        <CommitNumber
          w={92}
          label="Mains inlets"
          min={1}
          max={4}
          value={sheet.mains ? (sheet.mains.inlets ?? 1) : undefined}
          onCommit={(v) => put({ mains: { watts: 20, ...sheet.mains, inlets: v ?? 1 } })}
        />
        {(['width', 'depth', 'height'] as const).map((side) => (
          <CommitNumber
            key={side}
            w={92}
            label={`${side[0]?.toUpperCase()}${side.slice(1)}, mm`}
            min={5}
            max={3000}
            value={sheet.size?.[side]}
            onCommit={(v = 0) => setSize({ [side]: v })}
          />
        ))}
        <CommitNumber
          w={92}
          label="Weight, g"
          min={0}
          max={1e6}
          value={sheet.size?.grams}
          onCommit={(v = 0) => setSize({ grams: v })}
        />
        <CommitNumber
          w={92}
          label="Rack units"
          min={1}
          max={30}
          value={sheet.rackUnits}
          onCommit={(rackUnits) => put({ rackUnits })}
        />
        <CommitNumber
          w={92}
          label="Price"
          min={0}
          max={1e6}
          value={sheet.price}
          onCommit={(price) => put({ price })}
        />
      </Group>
    </>
  );
}
