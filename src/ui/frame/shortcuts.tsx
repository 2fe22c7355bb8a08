'use client';
import { Modal } from '@mantine/core';
import { PLACE_IDS, PLACES } from './place-list';

const KEYS: [string, string][] = [
  ['1 … 9, 0', 'choose a sound'],
  ['← →', 'walk along; from a probed lead, the next lead'],
  ['P', 'probe the lead behind the chosen device'],
  ['B', 'bypass or engage in this sound'],
  ['M', 'move: arrows choose the place, Enter puts it there'],
  ['I', 'insert a device into the probed lead'],
  ['A', 'add a device behind the chosen one, where an output is free'],
  ['C', 'connect the chosen device: type some of the other end, Enter'],
  ['R', 'replace by another kind'],
  ['Shift and a press', 'choose several devices; so does a frame drawn over the walk'],
  ['Shift ← →', 'choose the next of the walk too, or one fewer'],
  ['Ctrl C, Ctrl V', 'copy what is chosen, put it in here or in another rig'],
  ['Delete', 'remove and heal the route'],
  ['W', 'wiring list'],
  ['G', 'walk or drawing of the wiring'],
  ['T', 'the walk as a table'],
  ['H', 'fold or unfold modelers'],
  ['L', 'fold every lane but the chosen one, or unfold all'],
  ['F', 'findings'],
  ['Ctrl Z, Ctrl Y', 'undo, redo'],
  [
    `Alt 1 … ${PLACE_IDS.length}`,
    `the places: ${PLACE_IDS.map((p) => PLACES[p].label).join(', ')}`,
  ],
  ['Ctrl K', 'find and do anything'],
  ['D', 'light or dark sheet'],
  ['?', 'this list'],
  ['Escape', 'leave what is going on'],
];

/** All keys in one list. */
export function Shortcuts({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" size="md">
      <table className="sheet-table">
        <tbody>
          {KEYS.map(([key, what]) => (
            <tr key={key}>
              <td className="figures shortcuts-text">{key}</td>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  );
}
