'use client';
import { Spotlight, type SpotlightActionData, useSpotlight } from '@mantine/spotlight';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { cutList } from '../../core/build';
import { kindOf } from '../../core/kinds';
import type { Report } from '../../core/report';
import { reasonOf } from '../../core/outcome';
import {
  cutText,
  endWords,
  freshId,
  isEngaged,
  kindsFor,
  leadFrom,
  type Rig,
  stateIn,
} from '../../core/rig';
import type { RigState } from '../store/rig-store';
import { freshName } from '../signal/place-edits';
import { useRig } from '../store/use-rig';
import { paletteStore } from './palette-store';
import { useUnits } from './palette-units';
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
    | 'selection'
    | 'setNotice'
    | 'openFindings'
    | 'filterFindings'
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
const soundActions = ({ rig, setSound }: Does): SpotlightActionData[] =>
  rig.sounds.map((s, i) => ({
    id: `sound ${s.id}`,
    group: 'Sounds',
    label: `Choose ${s.name}`,
    description: i < 10 ? `key ${(i + 1) % 10}` : undefined,
    onClick: () => setSound(s.id),
  }));

/** Go to a device. */
const goActions = ({ rig, select, go }: Does): SpotlightActionData[] =>
  rig.devices.map((d) => ({
    id: `device ${d.id}`,
    group: 'Devices',
    label: `Go to ${d.name}`,
    keywords: `${kindOf(d.kind).name} ${kindOf(d.kind).about}`,
    onClick: () => {
      select({ kind: 'device', id: d.id });
      go('signal');
    },
  }));

/** Engage and bypass in the sound that is chosen. */
const turnActions = ({ rig, sound, edit }: Does): SpotlightActionData[] =>
  rig.devices.flatMap((d) => {
    const kind = kindOf(d.kind);
    const chosen = rig.sounds.find((s) => s.id === sound);
    if (kind.alwaysOn || !chosen) return [];
    const isOn = isEngaged(kind, d, stateIn(chosen, d.id));
    const words = kind.stateWords;
    return [
      {
        id: `turn ${d.id}`,
        group: `In ${chosen.name}`,
        label: words
          ? `${d.name}: ${isOn ? words.off : words.on}`
          : `${isOn ? 'Bypass' : 'Engage'} ${d.name}`,
        onClick: () => void edit({ edit: 'setEngaged', device: d.id, sound, engaged: !isOn }),
      },
    ];
  });

/** Go to a jack or a lead, by what it is called, by its code, or by what hangs on it. */
const wiringActions = ({ rig, select, go }: Does): SpotlightActionData[] => {
  const show = (selection: Parameters<Does['select']>[0]) => () => {
    select(selection);
    go('signal');
  };
  return [
    ...cutList(rig).cuts.map(({ lead, code }) => ({
      id: `lead ${lead.id}`,
      group: 'Leads',
      label: `Lead ${lead.label ?? code}`,
      description: `${endWords(rig, lead.from)} to ${endWords(rig, lead.to)}`,
      keywords: lead.id,
      onClick: show({ kind: 'lead', id: lead.id }),
    })),
    ...rig.devices.flatMap((d) =>
      kindOf(d.kind)
        .jacks.filter((j) => !j.inside)
        .map((j) => {
          const lead = rig.leads.find((l) =>
            [l.from, l.to].some((e) => e.device === d.id && e.jack === j.id),
          );
          const far = lead && (lead.from.device === d.id ? lead.to : lead.from);
          return {
            id: `jack ${d.id} ${j.id}`,
            group: 'Jacks',
            label: `${d.name}, ${j.label}`,
            description: far ? `plugged to ${endWords(rig, far)}` : 'free',
            onClick: show(lead ? { kind: 'lead', id: lead.id } : { kind: 'device', id: d.id }),
          };
        }),
    ),
  ];
};

/** Remove a device. */
const removeActions = ({ rig, edit }: Does): SpotlightActionData[] =>
  rig.devices.map((d) => ({
    id: `remove ${d.id}`,
    group: 'Remove',
    label: `Remove ${d.name}`,
    description: 'and heal the route',
    onClick: () => void edit({ edit: 'removeDevice', device: d.id }),
  }));

/** Look at a finding and what cures it. */
const findingActions = ({ findings, openFindings, filterFindings }: Does): SpotlightActionData[] =>
  findings.map((f) => ({
    id: `finding ${f.key}`,
    group: 'Findings',
    label: f.what,
    description: f.severity,
    // What may cure it finds it too; it is tried where it is offered.
    keywords: `${f.why} ${f.fix?.words ?? ''}`,
    onClick: () => {
      filterFindings({ text: f.what });
      openFindings(true);
    },
  }));

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
const addActions = ({ rig, sound, edit, select }: Does): SpotlightActionData[] => [
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
  ...kindsFor(rig.sheets).map((k) => ({
    id: `add ${k.id}`,
    group: 'Add a device, unconnected',
    label: `Add ${k.name}`,
    description: k.family,
    keywords: k.about,
    onClick: () => {
      const id = freshId(
        k.name,
        rig.devices.map((d) => d.id),
      );
      const name = freshName(rig, k.name);
      // Where one is, one stays: it waits in Signal, unconnected.
      if (edit({ edit: 'addDevice', device: { id, kind: k.id, name } }).ok)
        select({ kind: 'device', id });
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

/** A chain that is typed, with ">" in it, goes into the lead that is chosen, or behind the device that is. */
function chainActions({ rig, selection, edit, setNotice }: Does, typed: string) {
  if (!typed.includes('>')) return [];
  const device = rig.devices.find((d) => selection?.kind === 'device' && d.id === selection.id);
  const lead =
    selection?.kind === 'lead'
      ? rig.leads.find((l) => l.id === selection.id)
      : device && leadFrom(rig, device.id, kindOf(device.kind).through?.out ?? '');
  return [
    {
      id: 'chain',
      group: 'Do',
      label: `Put in: ${typed}`,
      description: lead
        ? `between ${endWords(rig, lead.from)} and ${endWords(rig, lead.to)}`
        : 'choose a lead first, or the device that it goes behind',
      onClick: () => {
        if (!lead)
          return setNotice('Choose a lead first, or the device that the chain goes behind.');
        void import('../../core/start').then(({ chainInto }) => {
          const edits = chainInto(rig, lead.id, typed);
          if (edits.ok) edit(edits.value, `put ${typed} into a lead`);
          else setNotice(reasonOf(edits));
        });
      },
    },
  ];
}

/** Everything that can be found and done, as the rig stands. */
function useActions(props: Props, isOpen: boolean, typed: string): SpotlightActionData[] {
  const router = useRouter();
  const units = useUnits(isOpen);
  // Nothing is gathered, and nothing listens, while the palette is shut.
  const state = useRig((s) => (isOpen ? s : null));
  return useMemo(() => {
    if (!state) return [];
    const { rig } = state.history;
    const does: Does = {
      ...props,
      ...state,
      rig,
      findings: state.report.findings.filter((f) => f.accepted === undefined),
      router,
      go: (place, part) => router.push(pathOf(rig.id, place, part)),
    };
    return [
      ...chainActions(does, typed),
      // Enter takes the first that is found: who types a name is led there; what changes the rig comes after.
      ...soundActions(does),
      ...goActions(does),
      ...turnActions(does),
      ...findingActions(does),
      ...wayActions(does),
      ...toolActions(does),
      ...addActions(does),
      ...wiringActions(does),
      ...removeActions(does),
      ...units,
    ];
  }, [state, props, router, typed, units]);
}

/** Finds and does anything that a button does. */
export function Palette(props: Props) {
  const { opened } = useSpotlight(paletteStore);
  const [typed, setTyped] = useState('');
  const actions = useActions(props, opened, typed.includes('>') ? typed.trim() : '');
  return (
    <Spotlight
      store={paletteStore}
      actions={actions}
      query={typed}
      onQueryChange={setTyped}
      // The frame opens it, which is there before it.
      shortcut={null}
      limit={14}
      scrollable
      maxHeight={460}
      nothingFound="Nothing is called that."
      searchProps={{
        autoFocus: true,
        'aria-label': 'Find and do anything',
        placeholder: 'Find a sound, a device, a jack, anything to do; or type a > b …',
      }}
    />
  );
}
