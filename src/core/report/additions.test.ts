/**
 * The five additions that CONTRIBUTING.md describes, each made in memory and seen to work from end
 * to end: what a newcomer writes in one or two files must be enough.
 */
import type { Kind } from '../kinds';
import { defineKind } from '../kinds/define';
import * as parts from '../kinds/parts';

jest.mock('../kinds/registry', () => {
  const actual = jest.requireActual<typeof import('../kinds/registry')>('../kinds/registry');
  const added: Kind[] = [];
  return {
    ...actual,
    KINDS: added,
    findKind: (id: string) => added.find((k) => k.id === id) ?? actual.findKind(id),
    kindOf: (id: string) => added.find((k) => k.id === id) ?? actual.kindOf(id),
  };
});

import { KINDS } from '../kinds';
import { RULES } from '../findings/rules';
import type { Remark } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { bytesOf, hex, MESSAGE_SORTS, messageWords, wireMs } from '../midi';
import { PROMISE_CHECKS, PromiseChecker } from '../promises';
import {
  applyEdit,
  applyEdits,
  editWords,
  PROMISE_TYPES,
  promiseWords,
  readRig,
  writeRig,
} from '../rig';
import { promiseSchemaOf } from '../rig/promise-schema';
import { destination, promiseType } from '../rig/promise-types';
import { chainOf, device } from '../testing/rigs';
import { CHECKS } from './checks';
import { Analyser, analyse } from './report';

test('a kind: put into a rig, figured, written and read', () => {
  const murmur = defineKind({
    id: 'murmur',
    name: 'Murmur',
    family: 'Level',
    job: 'boost',
    about: 'Takes 12 dB at most.',
    jacks: parts.throughJacks,
    figures: parts.pedalFigures(1e6, -105, 'one transistor'),
    parameters: [parts.knob('down', 'Down', 10)],
    through: parts.through,
    passes: (s) => [parts.stage(s, { gainDb: -1.2 * s.knob('down') })],
  });
  (KINDS as Kind[]).push(murmur);
  const rig = chainOf(['guitar-active', 'console-input'], 1);
  const put = applyEdit(rig, {
    edit: 'insertInLead',
    lead: 'l0',
    device: device('m', 'murmur', 'Murmur'),
    newLeads: ['n1', 'n2'],
  });
  if (!put.ok) throw new Error(put.problems[0]?.what);
  const heard = (r: typeof rig) => analyse(r).sounds[0]?.destinations[0]?.levelDbu?.normal ?? 0;
  expect(heard(put.value.rig) - heard(rig)).toBeCloseTo(-12, 1);
  expect(readRig(writeRig(put.value.rig)).ok).toBe(true);
});

test('a promise: read, told in words, checked, broken as a finding', () => {
  const loud = promiseType(
    'loud' as never,
    'a destination is loud',
    { destination },
    (p: { destination: string }, say) => `${say.device(p.destination)} is loud`,
  );
  Object.assign(PROMISE_TYPES, { loud });
  Object.assign(PROMISE_CHECKS, {
    loud: {
      inSound: (p: { destination: string }, _: unknown, sound: { id: string }) => [
        { sound: sound.id, why: 'It is not.', subjects: [p.destination] },
      ],
    },
  });
  const promise = promiseSchemaOf(PROMISE_TYPES).parse({
    id: 'p',
    type: 'loud',
    destination: 'd1',
  });
  const rig = { ...chainOf(['guitar-active', 'console-input'], 1), promises: [promise] };
  expect(promiseWords(rig, promise)).toBe('Device 1 is loud');
  const { findings, sounds } = analyse(rig);
  expect(findings.find((f) => f.rule === 'promise')?.what).toBe(
    'Broken promise: Device 1 is loud.',
  );
  expect(new PromiseChecker().check(rig, sounds)[0]).toMatchObject({ kept: false, sounds: 1 });
});

test('a finding with a fix: found by its check, gone when the fix is applied', () => {
  Object.assign(RULES, { 'no-buffer': { words: 'no buffer', severities: ['advice'] } });
  const checks = {
    ...CHECKS,
    sound: {
      buffers: ({ ctx: { rig } }: { ctx: { rig: ReturnType<typeof chainOf> } }): Remark[] =>
        rig.devices.some((d) => d.kind === 'buffer')
          ? []
          : [
              {
                rule: 'no-buffer' as Remark['rule'],
                severity: 'advice',
                subjects: ['d0'],
                what: 'There is no buffer.',
                why: 'Somebody likes them.',
                fix: insertFix(rig, 'buffer', 'Buffer', 'l0', 'Put one in'),
              },
            ],
    },
  };
  const rig = chainOf(['guitar-active', 'console-input'], 1);
  const found = new Analyser(undefined, checks)
    .analyse(rig)
    .findings.find((f) => f.what === 'There is no buffer.');
  const fixed = applyEdits(rig, found?.fix?.edits ?? []);
  if (!fixed.ok) throw new Error(fixed.problems[0]?.what);
  expect(found?.fix?.edits.map((e) => editWords(rig, e))).toEqual([
    'put Buffer between Device 0 and Device 1',
  ]);
  expect(
    new Analyser(undefined, checks)
      .analyse(fixed.value.rig)
      .findings.some((f) => f.what === 'There is no buffer.'),
  ).toBe(false);
});

test('a message: its bytes, its words, its time on the wire', () => {
  Object.assign(MESSAGE_SORTS, {
    pressure: {
      isRealtime: false,
      bytes: (m: { channel: number; value: number }) => [0xd0 | (m.channel - 1), m.value],
      words: (m: { channel: number; value: number }) => `channel ${m.channel}, pressure ${m.value}`,
      columns: (m: { channel: number; value: number }) => m,
      title: () => 'Pressure',
      event: () => undefined,
      isTaken: () => false,
      take: () => ({ what: 'nothing' }),
    },
  });
  const message = { type: 'pressure', channel: 3, value: 64 } as never;
  expect(hex(bytesOf(message))).toBe('D2 40');
  expect(messageWords(message)).toBe('channel 3, pressure 64');
  expect(wireMs([message])).toBeCloseTo(0.64, 6);
});
