import type {
  Choice,
  DeviceState,
  Figure,
  Jack,
  Kind,
  Knob,
  Parameter,
  Pass,
  Plugged,
  Point,
  TempoTable,
  Toggle,
  Written,
} from './kind';

/** A jack, its id kept in its type. */
export const jack = <const I extends string>(spec: Omit<Jack, 'id'> & { id: I }): Jack<I> => spec;

/** Something to set, its id and sort kept in its type. */
export function parameter<const I extends string>(spec: Knob<I>): Knob<I>;
export function parameter<const I extends string>(spec: Choice<I>): Choice<I>;
export function parameter<const I extends string>(spec: Toggle<I>): Toggle<I>;
export function parameter<const I extends string>(spec: Written<I>): Written<I>;
export function parameter(spec: Parameter): Parameter {
  return spec;
}

type IdOf<P, T> = P extends { id: infer I extends string; type: T } ? I : never;
/** The conductors of a jack that can be asked for: its tip, and its ring where it has one. */
type JackPoint<J> =
  | (J extends Jack<infer I> ? I : never)
  | (J extends { stereo: infer S extends string } ? S : never)
  | (J extends { insert: infer R extends string } ? R : never);

/** The state of a kind: it can be asked for its own figures and settings and for no others. */
export type StateOf<F extends Figure, P extends Parameter> = DeviceState<
  F['id'],
  IdOf<P, 'knob'>,
  IdOf<P, 'choice'>,
  IdOf<P, 'switch'>,
  IdOf<P, 'text'>
>;

/** A kind as its file writes it: everything that names a jack, a figure or a setting is checked. */
type Spec<J extends Jack, F extends Figure, P extends Parameter> = Omit<
  Kind,
  | 'jacks'
  | 'figures'
  | 'parameters'
  | 'passes'
  | 'through'
  | 'earth'
  | 'tempo'
  | 'moreTempos'
  | 'jackSpots'
> & {
  jacks: readonly J[];
  figures: readonly F[];
  parameters: readonly P[];
  through?: { in: NoInfer<J>['id']; out: NoInfer<J>['id'] };
  earth?: NoInfer<J>['id'];
  tempo?: TempoTable<IdOf<P, 'knob'>, NoInfer<F>['id']>;
  moreTempos?: readonly TempoTable<IdOf<P, 'knob'>, NoInfer<F>['id']>[];
  jackSpots?: { [I in NoInfer<J>['id']]?: NonNullable<Kind['jackSpots']>[Point] };
  passes: (state: StateOf<F, P>, plugged: Plugged<JackPoint<J>>) => Pass[];
};

/**
 * Writes down a kind. A knob, figure or jack that the kind does not have does not compile.
 *
 *     export const buffer = defineKind({
 *       id: 'buffer',
 *       jacks: throughJacks,
 *       figures: pedalFigures(1e6, -105, 'a JFET follower'),
 *       parameters: [],
 *       passes: (s) => [stage(s)],
 *       …
 *     });
 */
export function defineKind<
  const J extends Jack,
  const F extends Figure,
  const P extends Parameter = never,
>(spec: Spec<J, F, P>): Kind {
  return spec as unknown as Kind;
}
