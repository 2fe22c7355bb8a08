'use client';
import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { freshId, kindIdOf, type Sheet, sheetIdOf, writeSheet } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';
import { fileName, save } from '../../look/save-file';
import { freshName } from '../../signal/place-edits';
import './own-gear.css';
import { NewSheet } from './new-sheet';
import { SheetEditor } from './sheet-editor';

/** Devices of one's own in this rig: what each is, written down once, and who uses it. */
export function OwnGearView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const sheets = rig.sheets ?? [];
  const open = sheets.find((s) => s.id === chosen) ?? sheets[0];
  const take = (sheet: Sheet) => {
    const id = sheets.some((s) => s.id === sheet.id)
      ? freshId(
          sheet.id,
          sheets.map((s) => s.id),
        )
      : sheet.id;
    if (edit({ edit: 'putSheet', sheet: { ...sheet, id } }).ok) setChosen(id);
  };
  return (
    <div className="scroll own-gear" data-place="own-gear">
      <div className="own-gear-list">
        <NewSheet onTake={take} />
        {sheets.length === 0 && (
          <p className="empty">
            No gear of your own yet. Write down a device that no kind describes: change a kind, or
            put several into one box. It then stands wherever a device is chosen, at the top of the
            list.
          </p>
        )}
        <ul className="own-gear-names" aria-label="Sheets of this rig">
          {sheets.map((s) => (
            <li key={s.id}>
              <button
                type="button"
                className="own-gear-name"
                aria-current={s.id === open?.id}
                data-sheet={s.id}
                onClick={() => setChosen(s.id)}
              >
                <strong>{s.name}</strong>
                <span className="faint">
                  {s.is === 'changes'
                    ? `${kindOf(s.base).name}, changed`
                    : `${s.parts.length} parts`}
                  {', '}
                  {usedBy(rig.devices, s.id)}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </div>
      {open && (
        <div className="own-gear-sheet">
          <Group gap={8} mb={8}>
            <h2 className="own-gear-title">{open.name}</h2>
            <AddToRig sheet={open} />
            <Button
              size="compact-xs"
              variant="default"
              onClick={() =>
                save(`${fileName(open.name)}.sheet.json`, writeSheet(open), 'application/json')
              }
            >
              As a file
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => edit({ edit: 'removeSheet', sheet: open.id })}
            >
              Remove the sheet
            </Button>
          </Group>
          <SheetEditor key={open.id} sheet={open} />
        </div>
      )}
    </div>
  );
}

function usedBy(devices: readonly { kind: string; name: string }[], sheet: string): string {
  const names = devices.filter((d) => sheetIdOf(d.kind) === sheet).map((d) => d.name);
  return names.length ? `used by ${names.join(', ')}` : 'not used yet';
}

/** Puts one such device into the rig, unconnected, and shows it there. */
function AddToRig({ sheet }: { sheet: Sheet }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const select = useRig((s) => s.select);
  const setNotice = useRig((s) => s.setNotice);
  const add = () => {
    const id = freshId(
      sheet.id,
      rig.devices.map((d) => d.id),
    );
    const name = freshName(rig, sheet.name);
    if (!edit({ edit: 'addDevice', device: { id, kind: kindIdOf(sheet), name } }).ok) return;
    select({ kind: 'device', id });
    setNotice(`${name} is in the rig, unconnected: it waits in Signal.`);
  };
  return (
    <Button size="compact-xs" onClick={add}>
      Add one to the rig
    </Button>
  );
}
