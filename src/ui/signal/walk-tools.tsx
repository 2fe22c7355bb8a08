'use client';
import { Button, Menu, SegmentedControl, Select } from '@mantine/core';
import equal from 'fast-deep-equal';
import { memo } from 'react';
import { kindOf } from '../../core/kinds';
import { nameOf } from '../../core/rig';
import { PANES, type SignalAsked } from '../store/rig-store';
import { useDrawn, useRig } from '../store/use-rig';

const PANE_NAMES = { walk: 'Walk', table: 'Table', wiring: 'Wiring' };

/**
 * How the walk is looked at: the walk or the drawing, what is followed, what it is compared with,
 * which hosts are folded.
 */
export interface Looking extends SignalAsked {
  folded: string[];
  lanes: string[];
  quiet: boolean;
  /** Whether the wiring shows only jacks that hold a lead. */
  held: boolean;
}

interface Looks {
  looking: Looking;
  onLook: (change: Partial<Looking>) => void;
}

interface Props extends Looks {
  hosts: string[];
  quiet: string[];
  onPropose: () => void;
}

/** The row of controls over the walk. */
export const WalkTools = memo(function WalkTools({
  looking,
  hosts,
  quiet,
  onLook,
  onPropose,
}: Props) {
  return (
    <div className="walk-tools" role="group" aria-label="How the walk is looked at">
      <SegmentedControl
        size="xs"
        value={looking.pane}
        onChange={(v) => onLook({ pane: PANES.find((p) => p === v) ?? 'walk' })}
        data={PANES.map((value) => ({ value, label: PANE_NAMES[value] }))}
        aria-label="Walk, table or wiring"
      />
      {looking.pane !== 'wiring' && (
        <>
          <Follow looking={looking} onLook={onLook} />
          <Compare looking={looking} onLook={onLook} />
          <Folds looking={looking} hosts={hosts} onLook={onLook} />
          {quiet.length > 0 && (
            <Button
              size="compact-xs"
              variant={looking.quiet ? 'filled' : 'default'}
              aria-pressed={looking.quiet}
              onClick={() => onLook({ quiet: !looking.quiet })}
            >
              {looking.quiet ? 'Hide' : 'Show'} {quiet.length} quiet
            </Button>
          )}
        </>
      )}
      {looking.pane === 'wiring' && (
        <>
          <Inside looking={looking} onLook={onLook} />
          <Button
            size="compact-xs"
            variant={looking.held ? 'filled' : 'default'}
            aria-pressed={looking.held}
            onClick={() => onLook({ held: !looking.held })}
          >
            Only jacks in use
          </Button>
        </>
      )}
      <Button size="compact-xs" variant="default" className="walk-tools-gap" onClick={onPropose}>
        Proposals
      </Button>
    </div>
  );
}, equal);

/** One source or destination whose ways alone are shown. */
function Follow({ looking, onLook }: Looks) {
  const data = useDrawn(({ devices }) => {
    const from = devices.filter((d) => kindOf(d.kind).job === 'instrument');
    const to = devices.filter((d) => kindOf(d.kind).destination && !from.includes(d));
    return [
      { group: 'From', items: from.map((d) => ({ value: d.id, label: `from ${d.name}` })) },
      { group: 'To', items: to.map((d) => ({ value: d.id, label: `to ${d.name}` })) },
    ].filter((g) => g.items.length);
  });
  return (
    <Select
      size="xs"
      w={168}
      clearable
      searchable
      placeholder="Follow: all ways"
      aria-label="Follow one source or destination"
      value={looking.follow}
      onChange={(follow) => onLook({ follow })}
      data={data}
    />
  );
}

/** Another sound beside the one that is played. */
function Compare({ looking, onLook }: Looks) {
  const sound = useRig((s) => s.sound);
  const data = useDrawn((rig) =>
    rig.sounds
      .filter((s) => s.id !== sound)
      .map((s) => ({ value: s.id, label: `against ${s.name}` })),
  );
  return (
    <Select
      size="xs"
      w={168}
      clearable
      searchable
      placeholder="Compare with …"
      aria-label="Compare with another sound"
      value={looking.compare === sound ? null : looking.compare}
      onChange={(compare) => onLook({ compare })}
      data={data}
    />
  );
}

/** Whose wiring is drawn: the stage's, or what is inside one of its hosts. */
function Inside({ looking, onLook }: Looks) {
  const data = useDrawn((rig) =>
    rig.devices
      .filter((d) => kindOf(d.kind).hosts)
      .map((d) => ({ value: d.id, label: `inside ${d.name}` })),
  );
  if (!data.length) return null;
  return (
    <Select
      size="xs"
      w={208}
      allowDeselect={false}
      aria-label="Whose wiring is drawn"
      value={looking.inside ?? ''}
      onChange={(inside) => onLook({ inside: inside === '' ? null : inside })}
      data={[{ value: '', label: 'on the stage' }, ...data]}
    />
  );
}

/** More hosts than this are folded from a menu: their buttons would push the walk away. */
const FEW = 3;

/** For each host, what is inside it is shown or folded away. */
function Folds({ looking, hosts, onLook }: Looks & { hosts: string[] }) {
  const names = useDrawn((rig) => hosts.map((h) => nameOf(rig, h)));
  const folds = hosts.map((host, i) => {
    const isFolded = looking.folded.includes(host);
    return {
      host,
      isFolded,
      words: `${isFolded ? 'Unfold' : 'Fold'} ${names[i]}`,
      turn: () =>
        onLook({
          folded: isFolded ? looking.folded.filter((x) => x !== host) : [...looking.folded, host],
        }),
    };
  });
  if (folds.length > FEW)
    return (
      <Menu position="bottom-start" closeOnItemClick={false}>
        <Menu.Target>
          <Button size="compact-xs" variant={looking.folded.length ? 'filled' : 'default'}>
            {looking.folded.length ? `${looking.folded.length} folded …` : 'Fold …'}
          </Button>
        </Menu.Target>
        <Menu.Dropdown className="long-menu">
          {folds.map((f) => (
            <Menu.Item key={f.host} onClick={f.turn}>
              {f.words}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    );
  return folds.map((f) => (
    <Button
      key={f.host}
      size="compact-xs"
      variant={f.isFolded ? 'filled' : 'default'}
      aria-pressed={f.isFolded}
      onClick={f.turn}
    >
      {f.words}
    </Button>
  ));
}
