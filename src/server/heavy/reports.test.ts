import { randomUUID } from 'node:crypto';
import { chainOf } from '../../core/testing/rigs';
import { valueOf } from '../../core/testing/value-of';
import { analyse } from '../../core/report';
import { applyEdit } from '../../core/rig';
import { smallWalk } from '../../core/draw/small-walk';
import { SEVERITIES } from '../../core/findings/finding';
import type { Db } from '../database';
import { listRigs } from '../listed';
import { createRig, loadRig, saveRig, type SavedRig } from '../rigs';
import { testDatabase } from '../test-database';
import { lastReport, reportToShow } from './reports';

let db: Db;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ db, drop } = await testDatabase('reports'));
});
afterAll(() => drop());

const rig = { ...chainOf(['guitar-active', 'boost', 'console-input']), id: 'shown' };
const opened = async (): Promise<SavedRig> => (await loadRig(db, rig.id))!;

test('a rig opens with the report kept with it, the last one while a newer is made', async () => {
  await createRig(db, rig, 'made');
  const first = await opened();
  expect(await reportToShow(db, first)).toEqual({ report: analyse(rig), isCurrent: true });
  expect((await lastReport(db, rig.id))?.identity).toBe(first.identity);

  // The list says what is wrong with it, as it was judged; what was changed since is to be judged first.
  const listed = async () => (await listRigs(db)).find((r) => r.id === rig.id)!.open;
  const count = (severity: string) =>
    analyse(rig).findings.filter((f) => f.severity === severity).length;
  expect(await listed()).toEqual(Object.fromEntries(SEVERITIES.map((x) => [x, count(x)])));
  expect((await listRigs(db)).find((r) => r.id === rig.id)!.walk).toEqual(
    smallWalk(rig, analyse(rig).sounds[0]),
  );

  const boost = rig.devices[1]!.id;
  const edited = valueOf(
    applyEdit(rig, { edit: 'setSetting', device: boost, setting: 'level', value: 10 }),
  ).rig;
  await saveRig(db, {
    rig: edited,
    base: first.identity,
    identity: randomUUID(),
    words: 'louder',
    by: null,
  });
  expect(await listed()).toBeNull();
  const second = await opened();
  // At once, and what was known last: nobody waits for the new figures.
  expect(await reportToShow(db, second)).toEqual({ report: analyse(rig), isCurrent: false });
  await until(async () => (await lastReport(db, rig.id))?.identity === second.identity);
  expect((await lastReport(db, rig.id))?.report).toEqual(analyse(edited));
  expect(await reportToShow(db, second)).toEqual({ report: analyse(edited), isCurrent: true });
});

test('a report that fails is told, kept by nobody, and tried again', async () => {
  const other = { ...rig, id: 'torn' };
  await createRig(db, other, 'made');
  const { identity } = (await loadRig(db, 'torn'))!;
  const torn = { rig: { ...other, devices: null } as never, identity };
  const said = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  // It opens all the same, without figures: the page works them out, or says that it cannot.
  const without = { sounds: [], promises: [], findings: [] };
  expect(await reportToShow(db, torn)).toEqual({ report: without, isCurrent: false });
  expect(said).toHaveBeenCalledWith(expect.stringContaining('a report was not made'));
  said.mockRestore();
  expect(await lastReport(db, 'torn')).toBeUndefined();
  expect((await reportToShow(db, { rig: other, identity })).report).toEqual(analyse(other));
});

test('what another build worked out is not shown', async () => {
  await db.updateTable('report').set({ build: 'another' }).execute();
  expect(await lastReport(db, rig.id)).toBeUndefined();
});

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 200 && !(await holds()); i++) await new Promise((r) => setTimeout(r, 25));
}
