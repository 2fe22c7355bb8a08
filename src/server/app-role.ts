import { createHash } from 'node:crypto';
import { sql } from 'kysely';
import type { Db } from './database';

/** The role that the application connects with. It owns nothing. */
const APP = 'yantrel_app';

/** Its password, made from the owner's: whoever has that one may have this one, and not the other way. */
export const appPassword = (owner: string): string =>
  createHash('sha256').update(`yantrel application ${owner}`).digest('hex').slice(0, 40);

/** The address that the application connects to, from the owner's. */
export function appUrl(ownerUrl: string): string {
  const url = new URL(ownerUrl);
  url.password = appPassword(decodeURIComponent(url.password));
  url.username = APP;
  return url.toString();
}

/**
 * Makes the role of the application, or brings it up to date: it reads, and writes rigs, gear, names,
 * shows and the logbook, of which it takes nothing out; revisions it may only add. Tables are made and
 * changed by the owner alone.
 */
export async function grantApp(db: Db, ownerUrl: string): Promise<void> {
  const password = appPassword(decodeURIComponent(new URL(ownerUrl).password));
  await sql`do ${sql.raw(
    `$$ begin create role ${APP} login; exception when duplicate_object or unique_violation then null; end $$`,
  )}`.execute(db);
  const may = 'login nosuperuser nocreatedb nocreaterole';
  await sql`${sql.raw(`alter role ${APP} with ${may} password '${password}'`)}`.execute(db);
  await sql`${sql.raw(`
    grant usage on schema public to ${APP};
    grant select, insert on revision to ${APP};
    grant select, insert, update on rig, report to ${APP};
    grant select, insert, update on show, log_line, check_tick, fault_odds, trainer_score, care_interval
      to ${APP};
    grant select, insert, delete on log_link to ${APP};
    grant select, insert, update, delete on revision_name, gear_unit, gear_use to ${APP};
    grant select, insert, update, delete on sheet, sheet_use, photograph to ${APP}`)}`.execute(db);
}
