/** The lock that everybody who uses the database holds, shared. */
const KEY = 7_261_126;

/** A connection, as soon as the database takes one: after a crash it mends itself first. */
async function connected(pg, url) {
  for (let tries = 0; ; tries++) {
    const client = new pg.Client({ connectionString: url, application_name: 'yantrel start' });
    // A connection that breaks is noticed by whoever asks next.
    client.on('error', () => undefined);
    try {
      await client.connect();
      return client;
    } catch (error) {
      if (tries === 60) throw error;
      await new Promise((r) => setTimeout(r, 500));
    }
  }
}

/**
 * Holds the database for as long as this process uses it. `leave` lets it go and says whether nobody
 * else holds it: then it may be stopped. A process that is killed lets it go with its connection.
 */
export async function holdDatabase(url) {
  const { default: pg } = await import('pg');
  const client = await connected(pg, url);
  await client.query('select pg_advisory_lock_shared($1)', [KEY]);
  let ended = false;
  client.on('end', () => (ended = true));
  return {
    /** Whether the database still answers. */
    isThere: () =>
      ended
        ? Promise.resolve(false)
        : client.query('select 1').then(
            () => true,
            () => false,
          ),
    async leave() {
      try {
        await client.query('select pg_advisory_unlock_shared($1)', [KEY]);
        const { rows } = await client.query('select pg_try_advisory_lock($1) as last', [KEY]);
        return rows[0].last === true;
      } catch {
        return false;
      } finally {
        await client.end().catch(() => undefined);
      }
    },
  };
}
