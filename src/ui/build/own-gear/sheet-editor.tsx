'use client';
import { Button, Select } from '@mantine/core';
import { JOBS } from '../../../core/kinds';
import type { Assembly, Sheet } from '../../../core/rig';
import { CommitLines, CommitText } from '../../look/commit-text';
import { BoxFaces } from './box-faces-drawing';
import { BoxFields } from './box-fields';
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
      <BoxFields sheet={sheet} onChange={change} />
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
