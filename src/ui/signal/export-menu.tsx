'use client';
import { ActionIcon, Menu, Tooltip } from '@mantine/core';
import { IconDownload } from '@tabler/icons-react';
import { save, toPng } from '../look/save-file';
import { useDocument, useRig, useSoundReport } from '../store/use-rig';

const FORMATS = ['SVG', 'PNG', 'GraphML', 'DOT'] as const;

/**
 * Writes the wiring, or the walk of the chosen sound, as a drawing or as a graph. The writers are
 * fetched when they are needed.
 */
export function ExportMenu() {
  const rig = useDocument();
  const report = useSoundReport();
  const setNotice = useRig((s) => s.setNotice);
  const write = async (what: 'walk' | 'wiring', format: (typeof FORMATS)[number]) => {
    try {
      const { toDot, toGraphml, walkGraph, walkSvg, wiringGraph, wiringSvg } =
        await import('../../core/formats');
      if (what === 'walk' && !report) return;
      const name = what === 'walk' ? `${rig.id}-walk-${report!.sound}` : `${rig.id}-wiring`;
      const graph = () => (what === 'walk' ? walkGraph(rig, report!) : wiringGraph(rig));
      if (format === 'GraphML')
        return save(`${name}.graphml`, toGraphml(graph()), 'application/xml');
      if (format === 'DOT') return save(`${name}.dot`, toDot(graph()), 'text/vnd.graphviz');
      const svg = what === 'walk' ? walkSvg(rig, report!) : wiringSvg(rig);
      if (format === 'SVG') return save(`${name}.svg`, svg, 'image/svg+xml');
      save(`${name}.png`, await toPng(svg), 'image/png');
    } catch (error) {
      setNotice(
        `The ${format} file could not be ` +
          `written: ${error instanceof Error ? error.message : String(error)}. Try ` +
          'another format.',
      );
    }
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
            <Menu.Item key={`${what} ${f}`} onClick={() => void write(what, f)}>
              {what === 'walk' ? 'Walk' : 'Wiring'} as {f}
            </Menu.Item>
          )),
        ])}
      </Menu.Dropdown>
    </Menu>
  );
}
