import type { H3Event } from 'h3'
import type { Sql } from 'postgres'
import { connect } from '../db/connection'
import { Pool } from '../db/pool'
import { judgeOfServer } from '../judging/pool'
import { JudgingQueue } from '../judging/queue'
import type { Actor } from '../repositories/actor'
import type { SignedIn } from '../repositories/entrance'
import { repositoriesOf, type Repositories } from '../repositories/index'
import { Presence } from '../repositories/presence'
import { Hub } from '../together/hub'
import { isShop } from './mode'

let pool: Pool | undefined
let queue: JudgingQueue | undefined
let hub: Hub | undefined

/** The pool of this server, opened at first use. */
function thePool(): Pool {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: start with npm start')
  return (pool ??= new Pool(url))
}

/** The data of every workshop, for work of the server itself. */
export const database = (): Sql => thePool().sql

/** Checks the outdated jobs, and begins with those of an earlier server. */
export function judgingQueue(): JudgingQueue {
  queue ??= new JudgingQueue(database(), judgeOfServer())
  return queue
}

/** Tells windows about each other's changes. */
export function newsHub(): Hub {
  hub ??= new Hub(connect(process.env.DATABASE_URL ?? '', { max: 1 }), (workshop, job) => {
    const actor = { workshop, person: '', role: 'apprentice', epoch: '' } as const
    return new Presence(thePool().within(workshop), actor).here(job)
  })
  return hub
}

/**
 * On one machine a person has the name of the device, the workshop is the one of the database, and everybody owns it.
 */
async function ownerOf(sql: Sql, person: string): Promise<Actor> {
  const [row] = await sql<
    { id: string; epoch: string }[]
  >`select workshop_id as id, epoch from workshop order by created_at limit 1`
  if (!row) throw new Error('The database holds no workshop: run npm start once to set it up')
  return { workshop: row.id, person, role: 'owner', epoch: row.epoch }
}

declare module 'h3' {
  interface H3EventContext {
    /** Who is signed in; null on one machine. Set by the route before it begins. */
    person?: SignedIn | null
  }
}

/**
 * The data of the workshop of the person who is signed in, or of the one workshop on one machine.
 * @param device the name under which changes are noted on one machine
 */
export async function repositories(event: H3Event, device = 'somebody'): Promise<Repositories> {
  const { person } = event.context
  // A route that forgot to say who may use it must not fall back to the owner.
  if (isShop() && !person) throw new Error('A route of the shop reads data without a person')
  return repositoriesFor(person ?? (await ownerOf(database(), device)))
}

/** The data of a workshop for somebody who came in by another door: a customer with a link. */
export const repositoriesFor = (actor: Actor): Repositories =>
  repositoriesOf(thePool().within(actor.workshop), actor, judgeOfServer(), judgingQueue().saved)
