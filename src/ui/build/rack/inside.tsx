'use client';
import { sure } from '../../../core/outcome';
import { type KeyboardEvent, useMemo, useState } from 'react';
import {
  draggedPlace,
  freeRackPlace,
  mountedIn,
  rackClashes,
  rackSums,
  sizeOf,
  unitsOf,
} from '../../../core/build';
import { rackSvg } from '../../../core/formats';
import { type Device, type Rack, type Rig } from '../../../core/rig';
import { useRig } from '../../store/use-rig';
import { DrawnPlan } from '../drawn-plan';
import { NotMounted, ToPutRight, MountedPanel } from './lists';
import { RackHead, RackPanel, Panels } from './rack-panel';

export function Inside({
  rig,
  rack,
  onAdd,
  onRack,
}: {
  rig: Rig;
  rack: Rack;
  onAdd: () => void;
  onRack: (id: string | null) => void;
}) {
  const edit = useRig((s) => s.edit);
  const [selected, select] = useState<string | null>(null);
  const list = mountedIn(rig, rack);
  const sums = rackSums(rig, rack);
  const clashes = rackClashes(rig, rack);
  const svg = useMemo(() => rackSvg(rig, rack, { selected }), [rig, rack, selected]);
  const picked = rig.devices.find((d) => d.id === selected && d.rack?.rack === rack.id);
  const loose = rig.devices.filter(
    (d) =>
      d.host === undefined &&
      !d.at &&
      !d.rack &&
      sizeOf(d) &&
      (d.place === 'rack' || d.units !== undefined || !unitsOf(d).shelf),
  );
  const put = (d: Device, change: Partial<NonNullable<Device['rack']>>) =>
    edit({
      edit: 'placeInRack',
      device: d.id,
      rack: { rack: rack.id, unit: 1, ...d.rack, ...change },
    });
  const mount = (d: Device) => put(d, freeRackPlace(rig, rack, d));
  const onKey = (e: KeyboardEvent) => {
    if (!picked || e.ctrlKey || e.metaKey || e.altKey) return;
    const at = sure(picked.rack);
    if (e.key === 'ArrowUp') put(picked, { unit: Math.min(60, at.unit + 1) });
    else if (e.key === 'ArrowDown') put(picked, { unit: Math.max(1, at.unit - 1) });
    else if (e.key === 'ArrowLeft') put(picked, { x: Math.max(0, (at.x ?? 0) - 5) });
    else if (e.key === 'ArrowRight') put(picked, { x: Math.min(500, (at.x ?? 0) + 5) });
    else if (e.key === 'Delete' || e.key === 'Backspace') {
      edit({ edit: 'placeInRack', device: picked.id, rack: null });
      select(null);
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="board" data-place="rack">
      <div className="board-main">
        <RackHead rig={rig} rack={rack} onRack={onRack} onAdd={onAdd} sums={sums} />
        <DrawnPlan
          svg={svg}
          label={
            `${rack.name}, front and rear. Arrows move what is chosen by a unit or by 5 mm on ` +
            'its shelf, Delete takes it out.'
          }
          onPick={select}
          onKey={onKey}
          onDrag={(id, dx, dy, done) => {
            const d = rig.devices.find((x) => x.id === id);
            const place = d && done && draggedPlace(d, dx, dy);
            if (place) put(d, place);
          }}
        />
      </div>
      <aside className="board-side scroll">
        {picked ? (
          <MountedPanel picked={picked} list={list} rack={rack} put={put} select={select} />
        ) : (
          <RackPanel key={rack.id} rack={rack} onGone={() => onRack(null)} />
        )}
        {clashes.length > 0 && <ToPutRight clashes={clashes} select={select} />}
        {loose.length > 0 && <NotMounted loose={loose} mount={mount} />}
        <Panels rig={rig} />
        <p className="faint common-text-2">
          A unit is 44.45 mm. Boxes without ears stand on a shelf, 450 mm between the rails. Heat is
          all that is drawn from the mains; the case’s own weight sits in its middle. Over about 23
          kg two persons lift.
        </p>
      </aside>
    </div>
  );
}
