import type { SmallWalk } from '../core/draw/small-walk';
import type { Severity } from '../core/findings/finding';
import type { ColumnType, JSONColumnType } from 'kysely';
import type { Rig } from '../core/rig';

type Moment = ColumnType<Date, Date | undefined, never>;

/** A rig: its name for lists, whether it is archived, and the number of its newest revision. */
export interface RigTable {
  id: string;
  name: string;
  head: number;
  devices: ColumnType<number, number | undefined, number>;
  sounds: ColumnType<number, number | undefined, number>;
  created_at: Moment;
  changed_at: ColumnType<Date, Date | undefined, Date>;
  archived_at: ColumnType<Date | null, undefined, Date | null>;
  /** Words by which it is sorted in lists. */
  tags: ColumnType<string[], string[] | undefined, string[]>;
}

/** Every document that was ever saved, whole or as what changed since the one before; rows are only added. */
export interface RevisionTable {
  rig_id: string;
  number: number;
  based_on: number | null;
  words: string;
  document: JSONColumnType<Rig, string, never> | null;
  delta: JSONColumnType<object, string, never> | null;
  /** Unguessable: by it a page knows whether the database still holds what the page is based on. */
  identity: ColumnType<string, string | undefined, never>;
  saved_by: string | null;
  saved_at: Moment;
}

/** A name that somebody gave a revision. */
export interface RevisionNameTable {
  rig_id: string;
  number: number;
  name: string;
}

/** A unit with a serial number. Weight in grams. */
export interface GearUnitTable {
  serial: string;
  name: string;
  owner: string;
  grams: number | null;
  value: number | null;
  notes: string;
  /** The sheet of the locker that says what it is. */
  sheet_id: ColumnType<string | null, string | null | undefined, string | null>;
}

/** A unit in the place of a device of a rig. */
export interface GearUseTable {
  rig_id: string;
  device_id: string;
  serial: string;
  device_name: string;
}

/** The last report of a rig, packed, with the revision it belongs to and the build that made it. */
export interface ReportTable {
  rig_id: string;
  identity: string;
  build: string;
  body: Buffer;
  /** Open findings by severity; null where an earlier version kept the report. */
  open: ColumnType<Record<Severity, number> | null, string | null, string | null>;
  /** The walk of the first sound, small; null where there is none, or an earlier version kept the report. */
  walk: ColumnType<SmallWalk | null, string | null, string | null>;
  made_at: Date;
}

/** What devices of one's own are, by the id of the sheet; `version` counts its changes. */
export interface SheetTable {
  id: string;
  version: number;
  body: JSONColumnType<object, string, string>;
  changed_at: ColumnType<Date, Date | undefined, Date>;
}

/** A rig's copy of a sheet: the mark of what it says there, and how many devices it describes. */
export interface SheetUseTable {
  rig_id: string;
  sheet_id: string;
  kind: string;
  devices: number;
}

/** A photograph of a unit or of a sheet: one of the two. Width and height in pixels. */
export interface PhotographTable {
  id: ColumnType<string, undefined, never>;
  serial: string | null;
  sheet_id: string | null;
  body: Buffer;
  media: string;
  width: number;
  height: number;
  added_at: Moment;
}

/** A show of a rig; `body` is the whole record, the columns beside it are what is asked for. */
export interface ShowTable {
  id: string;
  rig_id: string;
  date: ColumnType<Date | string, string, string>;
  venue: string;
  body: JSONColumnType<object, string, string>;
  gone: boolean;
}

/** A line of the logbook. */
export interface LogLineTable {
  id: string;
  rig_id: string;
  at: Date;
  sort: string;
  body: JSONColumnType<object, string, string>;
  gone: boolean;
}

/** What a line is about; `serial` is that of the unit, which other rigs may use too. */
export interface LogLinkTable {
  line_id: string;
  is: string;
  thing: string;
  serial: string | null;
}

/** A step of a line check, ticked or failed; the odds of a fault that somebody set; a score of the trainer. */
export interface CheckTickTable {
  id: string;
  rig_id: string;
  body: JSONColumnType<object, string, string>;
}

export interface Database {
  rig: RigTable;
  revision: RevisionTable;
  revision_name: RevisionNameTable;
  gear_unit: GearUnitTable;
  gear_use: GearUseTable;
  report: ReportTable;
  sheet: SheetTable;
  sheet_use: SheetUseTable;
  photograph: PhotographTable;
  show: ShowTable;
  log_line: LogLineTable;
  log_link: LogLinkTable;
  check_tick: CheckTickTable;
  fault_odds: CheckTickTable;
  care_interval: CheckTickTable;
  trainer_score: CheckTickTable;
}
