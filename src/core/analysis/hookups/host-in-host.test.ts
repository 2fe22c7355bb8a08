import { device as d, lead as l, rigOf } from '../../testing/rigs';
import { links, whole, at } from './by-hand';

test('a host inside a host: links, budgets and the walk go all the way down', () => {
  const rig = rigOf(
    [
      d('g', 'guitar-active', 'G'),
      d('outer', 'modeler-rack', 'Outer'),
      d('inner', 'modeler-compact', 'Inner', { host: 'outer' }),
      d('drv', 'drive-low', 'Drive', { host: 'inner', engaged: true }),
      d('desk', 'console-input', 'H', { settings: { input: 'line' } }),
    ],
    [
      l('1', 'g.out', 'outer.in', 3),
      l('2', 'outer.out', 'desk.in', 5),
      ...links(
        ['outer.fromIn', 'inner.in'],
        ['inner.out', 'outer.toOut'],
        ['inner.fromIn', 'drv.in'],
        ['drv.out', 'inner.toOut'],
      ),
    ],
  );
  const r = whole(rig);
  expect(at(r, 's1', 'desk').route.map((id) => id.split(':')[0])).toEqual([
    'g',
    'outer',
    'inner',
    'drv',
    'inner',
    'outer',
    'desk',
  ]);
  expect(r.sounds[0]!.hosts.map((h) => [h.host, h.blocks])).toEqual([
    ['outer', ['inner']],
    ['inner', ['drv']],
  ]);
});
