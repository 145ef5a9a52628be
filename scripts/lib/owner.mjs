// One `npm start` at a time works with the data of a folder. Whoever does holds a lock in its database, which goes
// with the process that took it, however that ends.
import postgres from 'postgres'

/** Any number will do, as long as every start asks for the same one. */
const ownerLock = 7_108_422

/**
 * Takes the data of a database for this process, and leaves the address at which they are served; asked again, it
 * takes them again where the database was down in between.
 * @returns `take`, which gives null when they are taken, else the address of whoever has them; and `release`
 */
export function ownerOf(url, address) {
  // One connection, which is opened again where it was lost: the lock is of its session.
  const sql = postgres(url, {
    max: 1,
    idle_timeout: 0,
    max_lifetime: null,
    connect_timeout: 5,
    onnotice() {},
  })
  const take = async () => {
    const [{ held }] = await sql`
      select exists (
        select from pg_locks
        where locktype = 'advisory' and objid = ${ownerLock} and pid = pg_backend_pid()) as held`
    if (held) return null
    const [{ taken }] = await sql`select pg_try_advisory_lock(${ownerLock}) as taken`
    await sql`create table if not exists public.running_at (one boolean primary key default true check (one), address text not null)`
    if (taken) {
      await sql`insert into running_at (address) values (${address}) on conflict (one) do update set address = excluded.address`
      return null
    }
    const [row] = await sql`select address from running_at`
    return row?.address ?? 'an address that it has not told yet'
  }
  return { take, release: () => sql.end({ timeout: 5 }) }
}
