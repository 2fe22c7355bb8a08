import type { Draft } from 'immer';
import * as z from 'zod';
import { nameOf, soundOf, leadOf } from '../find';
import type { Refusal } from '../refusal';
import type { Rig } from '../schema';

/** Names of what an edit speaks of, told of the rig before it. */
export interface EditSay {
  rig: Rig;
  /** A device by name. */
  d: (device: string) => string;
  /** "in Lead", or "in every sound". */
  s: (sound: string | undefined) => string;
  /** "between Wah and Kiln Drive". */
  into: (lead: string) => string;
  kindOfDevice: (device: string) => string | undefined;
}

export function editSay(rig: Rig): EditSay {
  const d = (id: string) => nameOf(rig, id);
  return {
    rig,
    d,
    s: (id) => (id === undefined ? 'in every sound' : `in ${soundOf(rig, id)?.name ?? id}`),
    into: (lead) => {
      const l = leadOf(rig, lead);
      return l ? `between ${d(l.from.device)} and ${d(l.to.device)}` : '';
    },
    kindOfDevice: (id) => rig.devices.find((x) => x.id === id)?.kind,
  };
}

/**
 * One edit, whole: the values that it carries, what it does to a draft of the rig (or why it
 * cannot, in words), and what the history says of it.
 *
 *     renameRig: defineEdit('renameRig', { name: z.string() }, {
 *       apply: (rig, e) => void (rig.name = e.name),
 *       words: (e) => `renamed the rig to ${e.name}`,
 *     }),
 */
export function defineEdit<const N extends string, S extends z.ZodRawShape>(
  name: N,
  shape: S,
  does: {
    apply: (rig: Draft<Rig>, edit: z.infer<z.ZodObject<{ edit: z.ZodLiteral<N> } & S>>) => Refusal;
    words: (edit: z.infer<z.ZodObject<{ edit: z.ZodLiteral<N> } & S>>, say: EditSay) => string;
  },
) {
  const schema = z.object({ edit: z.literal(name), ...shape }) as z.ZodObject<
    { edit: z.ZodLiteral<N> } & S
  >;
  return { name, schema, ...does };
}
