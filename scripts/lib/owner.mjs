// One `npm start` at a time works with the data of a folder. It holds a lock in the database, and the lock ends
// with its process.

/** Any number will do, as long as every start asks for the same one. */
const ownerLock = 7_108_422

/**
 * The lock on the data of a database. `take` locks them for this process and stores the address that serves them.
 * Call it again after the database was down.
 * @param address gives the address that serves the data now
 * @returns `take`, which gives null once the data are locked, or the address of the process that holds them;
 * `announce`, which stores the address again after it changed; and `release`
 */
export async function ownerOf(url, address) {
  // Loaded here, because this file is read before packages are installed.
  const { default: postgres } = await import('postgres')
  // One connection, which is opened again where it was lost: the lock is of its session.
  const sql = postgres(url, {
    max: 1,
    idle_timeout: 0,
    max_lifetime: null,
    connect_timeout: 5,
    // Without this the client waits longer after each loss, up to 20 s, before it looks again.
    backoff: 0,
    onnotice() {},
  })
  const announce = async () => {
    await sql`insert into running_at (address) values (${address()}) on conflict (one) do update set address = excluded.address`
  }
  const take = async () => {
    const [{ held }] = await sql`
      select exists (
        select from pg_locks
        where locktype = 'advisory' and objid = ${ownerLock} and pid = pg_backend_pid()) as held`
    if (held) return null
    const [{ taken }] = await sql`select pg_try_advisory_lock(${ownerLock}) as taken`
    await sql`create table if not exists public.running_at (one boolean primary key default true check (one), address text not null)`
    if (taken) {
      await announce()
      return null
    }
    const [row] = await sql`select address from running_at`
    return row?.address ?? 'an address that is not known yet'
  }
  return { take, announce, release: () => sql.end({ timeout: 5 }) }
}
