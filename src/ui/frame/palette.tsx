'use client';
import { Spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { useRouter } from 'next/navigation';
import { KINDS } from '../../core/kinds';
import type { Report } from '../../core/report';
import { cutText, freshId, type Rig } from '../../core/rig';
import type { RigState } from '../store/rig-store';
import { useDocument, useRig } from '../store/use-rig';
import { paletteStore } from './palette-store';
import { keyOf, pathOf, PLACE_IDS, type PlaceId, placeOf, PLACES } from './place-list';

interface Props {
  onShortcuts: () => void;
  onScheme: () => void;
  onExport: () => void;
}

type Does = Props &
  Pick<
    RigState,
    | 'edit'
    | 'undo'
    | 'redo'
    | 'setSound'
    | 'select'
    | 'openFindings'
    | 'setUnits'
    | 'units'
    | 'sound'
  > & {
    rig: Rig;
    findings: Report['findings'];
    router: ReturnType<typeof useRouter>;
    go: (place: PlaceId, part?: string) => void;
  };

/** Choose a sound. */
const soundActions = ({ rig, setSound }: Does): SpotlightActionData[] => [
  ...rig.sounds.map((s, i) => ({
    id: `sound ${s.id}`,
    group: 'Sounds',
    label: `Choose ${s.name}`,
    description: i < 10 ? `key ${(i + 1) % 10}` : undefined,
    onClick: () => setSound(s.id),
  })),
];

/** Go to a device or remove one, or look at what cures a finding. */
const deviceActions = ({
  rig,
  findings,
  edit,
  select,
  go,
  openFindings,
}: Does): SpotlightActionData[] => [
  ...rig.devices.map((d) => ({
    id: `device ${d.id}`,
    group: 'Devices',
    label: `Go to ${d.name}`,
    onClick: () => {
      select({ kind: 'device', id: d.id });
      go('signal');
    },
  })),
  ...rig.devices.map((d) => ({
    id: `remove ${d.id}`,
    group: 'Devices',
    label: `Remove ${d.name}`,
    description: 'and heal the route',
    onClick: () => void edit({ edit: 'removeDevice', device: d.id }),
  })),
  ...findings.flatMap((f) =>
    f.fix && f.accepted === undefined
      ? [
          {
            id: `fix ${f.key}`,
            group: 'Fixes',
            label: f.fix.words,
            description: f.what,
            // Where it is tried before it is offered.
            onClick: () => openFindings(true),
          },
        ]
      : [],
  ),
];

/** Every place, part and song, and the findings. */
const wayActions = ({ rig, router, go, openFindings }: Does): SpotlightActionData[] => [
  ...PLACE_IDS.map((p) => ({
    id: `place ${p}`,
    group: 'Go',
    label: `Open ${PLACES[p].label.toLowerCase()}`,
    description: keyOf(p).replace('alt+', 'Alt '),
    onClick: () => go(p),
  })),
  {
    id: 'safety',
    group: 'Go',
    label: 'Safety: what hurts people',
    onClick: () => window.location.assign('/safety'),
  },
  {
    id: 'locker',
    group: 'Go',
    label: 'Gear locker, all rigs',
    onClick: () => window.location.assign('/gear'),
  },
  ...PLACE_IDS.flatMap((place) =>
    Object.entries(placeOf(place).parts ?? {}).map(([part, { words }]) => ({
      id: `part ${part}`,
      group: 'Go',
      label: words,
      onClick: () => go(place, part),
    })),
  ),
  ...(rig.songs ?? []).map((s) => ({
    id: `song ${s.id}`,
    group: 'Songs',
    label: `Open songs: ${s.title}`,
    onClick: () => go('songs'),
  })),
  { id: 'rigs', group: 'Go', label: 'All rigs', onClick: () => router.push('/') },
  {
    id: 'findings',
    group: 'Do',
    label: 'Findings',
    description: 'F',
    onClick: () => openFindings(true),
  },
];

/** Add a sound, copy one, or add a device of any kind. */
const addActions = ({ rig, sound, edit, select, go }: Does): SpotlightActionData[] => [
  {
    id: 'add sound',
    group: 'Do',
    label: 'Add a sound',
    onClick: () =>
      void edit({
        edit: 'addSound',
        sound: {
          id: freshId(
            'sound',
            rig.sounds.map((s) => s.id),
          ),
          name: `Sound ${rig.sounds.length + 1}`,
          states: {},
        },
      }),
  },
  {
    id: 'copy sound',
    group: 'Do',
    label: 'Copy this sound',
    onClick: () =>
      void edit({
        edit: 'copySound',
        sound,
        id: freshId(
          sound,
          rig.sounds.map((s) => s.id),
        ),
        name: cutText(`${rig.sounds.find((s) => s.id === sound)?.name ?? 'Sound'} copy`, 120),
      }),
  },
  ...KINDS.map((k) => ({
    id: `add ${k.id}`,
    group: 'Add a device, unconnected',
    label: `Add ${k.name}`,
    description: k.family,
    onClick: () => {
      const id = freshId(
        k.name,
        rig.devices.map((d) => d.id),
      );
      if (edit({ edit: 'addDevice', device: { id, kind: k.id, name: k.name } }).ok)
        select({ kind: 'device', id });
      go('signal');
    },
  })),
];

/** Undo, units, export and how the sheet looks. */
const toolActions = ({
  units,
  undo,
  redo,
  setUnits,
  onExport,
  onScheme,
  onShortcuts,
}: Does): SpotlightActionData[] => [
  { id: 'undo', group: 'Do', label: 'Undo', description: 'Ctrl Z', onClick: undo },
  { id: 'redo', group: 'Do', label: 'Redo', description: 'Ctrl Y', onClick: redo },
  { id: 'export', group: 'Do', label: 'Export this rig as a file', onClick: onExport },
  {
    id: 'level',
    group: 'Do',
    label: `Show levels in ${units.level === 'dBu' ? 'dBV' : 'dBu'}`,
    onClick: () => setUnits({ ...units, level: units.level === 'dBu' ? 'dBV' : 'dBu' }),
  },
  {
    id: 'length',
    group: 'Do',
    label: `Show lengths in ${units.length === 'metric' ? 'feet' : 'metres'}`,
    onClick: () =>
      setUnits({ ...units, length: units.length === 'metric' ? 'imperial' : 'metric' }),
  },
  {
    id: 'scheme',
    group: 'Do',
    label: 'Light or dark sheet',
    description: 'D',
    onClick: onScheme,
  },
  { id: 'keys', group: 'Do', label: 'Keys', description: '?', onClick: onShortcuts },
];

/** Finds and does anything that a button does. */
export function Palette(props: Props) {
  const rig = useDocument();
  const router = useRouter();
  const does: Does = {
    ...props,
    ...useRig((s) => s),
    rig,
    findings: useRig((s) => s.report.findings),
    router,
    go: (place, part) => router.push(pathOf(rig.id, place, part)),
  };
  const actions = [
    ...soundActions(does),
    ...deviceActions(does),
    ...wayActions(does),
    ...toolActions(does),
    ...addActions(does),
  ];
  return (
    <Spotlight
      store={paletteStore}
      actions={actions}
      shortcut={['mod + K']}
      limit={14}
      scrollable
      maxHeight={460}
      nothingFound="Nothing is called that."
      searchProps={{
        autoFocus: true,
        placeholder: 'Find a sound, a device, a fix, anything to do …',
      }}
    />
  );
}
