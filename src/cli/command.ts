import { type Problem, reasonOf } from '../core/outcome';
import type { Rig } from '../core/rig';

/** Exit codes of the command line; with several files, the worst of them. */
export const EXIT = { fine: 0, faulty: 1, unreadable: 2, broken: 3 } as const;

/** What a command found in one file: as a value for `--json`, and as lines for a person. */
export interface Answer {
  json: unknown;
  lines: string[];
  /** 0 where it is left out. */
  exit?: number;
  /** Text or bytes that are the answer themselves, such as a drawing: to a file or to the output. */
  content?: string | Uint8Array;
}

/** One option: its flags as they are typed, and what it is for. */
export interface Option {
  flags: string;
  about: string;
  initial?: string;
  required?: boolean;
}

/** One command, whole: its name, what it is for, its options, and what it does with a rig. */
export interface Command<O extends object = object> {
  name: string;
  about: string;
  options: readonly Option[];
  run: (rig: Rig, options: O) => Answer | Promise<Answer>;
}

/** A command that makes a rig of a text, where the others look at files. */
export interface Maker<O extends object = object> {
  name: string;
  about: string;
  argument: { name: string; about: string };
  options: readonly Option[];
  run: (text: string, options: O) => Answer;
}

/** Writes down a command; its options are named in its type, as they are typed in its flags. */
export const command = <O extends object>(spec: Command<O>): Command => spec as unknown as Command;

/** Why a command cannot be done, in words for the person. */
export class Refusal extends Error {}

export function refuse(...lines: string[]): never {
  throw new Refusal(lines.join('\n'));
}

/** A thing of the rig by its id or its name. */
export function named<T extends { id: string }>(
  list: readonly T[] | undefined,
  text: string,
  name: (x: T) => string,
  what: string,
): T {
  const wanted = text.trim().toLowerCase();
  const found = list?.find((x) => x.id === text || name(x).toLowerCase() === wanted);
  const has = (list ?? []).map(name).join(', ') || 'none';
  return found ?? refuse(`There is no ${what} "${text}". It has: ${has}.`);
}

/** The answer where what was asked for cannot be had: why, in words. */
export const saysWhy = (failed: { problems: Problem[] }): Answer => ({
  json: { problem: reasonOf(failed) },
  lines: [reasonOf(failed)],
});

export const SOUND: Option = { flags: '--sound <name>', about: 'a sound, by name or id' };
