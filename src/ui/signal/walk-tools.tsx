'use client';
import { sure } from '../../core/outcome';
import { Button, SegmentedControl, Select } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { nameOf } from '../../core/rig';
import { PANES, type SignalAsked } from '../store/rig-store';
import { useDocument, useRig } from '../store/use-rig';

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
export function WalkTools({ looking, hosts, quiet, onLook, onPropose }: Props) {
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
        <Button
          size="compact-xs"
          variant={looking.held ? 'filled' : 'default'}
          aria-pressed={looking.held}
          onClick={() => onLook({ held: !looking.held })}
        >
          Only jacks in use
        </Button>
      )}
      <Button size="compact-xs" variant="default" className="walk-tools-gap" onClick={onPropose}>
        Proposals
      </Button>
    </div>
  );
}

/** One source or destination whose ways alone are shown. */
function Follow({ looking, onLook }: Looks) {
  const rig = useDocument();
  const isSource = (id: string) =>
    kindOf(sure(rig.devices.find((d) => d.id === id)).kind).job === 'instrument';
  const ends = rig.devices.filter(
    (d) => kindOf(d.kind).job === 'instrument' || kindOf(d.kind).destination,
  );
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
      data={[
        {
          group: 'From',
          items: ends
            .filter((d) => isSource(d.id))
            .map((d) => ({ value: d.id, label: `from ${d.name}` })),
        },
        {
          group: 'To',
          items: ends
            .filter((d) => !isSource(d.id))
            .map((d) => ({ value: d.id, label: `to ${d.name}` })),
        },
      ].filter((g) => g.items.length)}
    />
  );
}

/** Another sound beside the one that is played. */
function Compare({ looking, onLook }: Looks) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
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
      data={rig.sounds
        .filter((s) => s.id !== sound)
        .map((s) => ({ value: s.id, label: `against ${s.name}` }))}
    />
  );
}

/** A button for each host: what is inside it is shown or folded away. */
function Folds({ looking, hosts, onLook }: Looks & { hosts: string[] }) {
  const rig = useDocument();
  return hosts.map((h) => {
    const isFolded = looking.folded.includes(h);
    return (
      <Button
        key={h}
        size="compact-xs"
        variant={isFolded ? 'filled' : 'default'}
        aria-pressed={isFolded}
        onClick={() =>
          onLook({
            folded: isFolded ? looking.folded.filter((x) => x !== h) : [...looking.folded, h],
          })
        }
      >
        {isFolded ? 'Unfold' : 'Fold'} {nameOf(rig, h)}
      </Button>
    );
  });
}
