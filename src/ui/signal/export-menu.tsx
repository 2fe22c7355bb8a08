'use client';
import { sure } from '../../core/outcome';
import { ActionIcon, Menu, Tooltip } from '@mantine/core';
import { IconDownload } from '@tabler/icons-react';
import { save, toPng } from '../look/save-file';
import type { SoundReport } from '../../core/report';
import type { Rig } from '../../core/rig';
import { useRig, useRigStore } from '../store/use-rig';

/** The writers are fetched when they are needed. */
const writers = () => import('../../core/formats');

const FORMATS = ['SVG', 'PNG', 'GraphML', 'DOT'] as const;

/** Writes one drawing or graph to a file. */
async function write(
  rig: Rig,
  report: SoundReport | undefined,
  what: 'walk' | 'wiring',
  format: (typeof FORMATS)[number],
): Promise<void> {
  const { toDot, toGraphml, walkGraph, walkSvg, wiringGraph, wiringSvg } = await writers();
  if (what === 'walk' && !report) return;
  const name = what === 'walk' ? `${rig.id}-walk-${sure(report).sound}` : `${rig.id}-wiring`;
  const graph = () => (what === 'walk' ? walkGraph(rig, sure(report)) : wiringGraph(rig));
  if (format === 'GraphML') return save(`${name}.graphml`, toGraphml(graph()), 'application/xml');
  if (format === 'DOT') return save(`${name}.dot`, toDot(graph()), 'text/vnd.graphviz');
  const svg = what === 'walk' ? walkSvg(rig, sure(report)) : wiringSvg(rig);
  if (format === 'SVG') return save(`${name}.svg`, svg, 'image/svg+xml');
  save(`${name}.png`, await toPng(svg), 'image/png');
}

/** Writes the wiring, or the walk of the chosen sound, as a drawing or as a graph. */
export function ExportMenu() {
  const store = useRigStore();
  const setNotice = useRig((s) => s.setNotice);
  const choose = (what: 'walk' | 'wiring', format: (typeof FORMATS)[number]) => {
    const { history, report, sound } = store.getState();
    const shown = report.sounds.find((s) => s.sound === sound);
    write(history.rig, shown, what, format).catch((error: unknown) =>
      setNotice(
        `The ${format} file could not be ` +
          `written: ${error instanceof Error ? error.message : String(error)}. Try ` +
          'another format.',
      ),
    );
  };
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Tooltip label="Export the walk or the wiring">
          <ActionIcon variant="default" aria-label="Export the walk or the wiring">
            <IconDownload size={17} />
          </ActionIcon>
        </Tooltip>
      </Menu.Target>
      <Menu.Dropdown>
        {(['walk', 'wiring'] as const).map((what) => [
          <Menu.Label key={what}>
            {what === 'walk' ? 'The walk of this sound' : 'The wiring, whatever the sound'}
          </Menu.Label>,
          ...FORMATS.map((f) => (
            <Menu.Item key={`${what} ${f}`} onClick={() => choose(what, f)}>
              {what === 'walk' ? 'Walk' : 'Wiring'} as {f}
            </Menu.Item>
          )),
        ])}
      </Menu.Dropdown>
    </Menu>
  );
}
