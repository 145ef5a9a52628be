import type { Sql } from 'postgres'
import type { Judge } from '../judging/judge'
import type { Actor } from './actor'
import { CustomerLinks } from './customer-links'
import { CustomerMessages } from './customer-messages'
import { Jobs } from './jobs'
import { Letterheads } from './letterheads'
import { People } from './people'
import { Passkeys } from './passkeys'
import { Photos } from './photos'
import { Pins } from './pins'
import { Presence } from './presence'
import { Sheets } from './sheets'
import { Shelf } from './shelf'
import { Shop } from './shop'
import { Tokens } from './tokens'

export interface Repositories {
  /** The id of the workshop that all of them are of. */
  readonly workshop: string
  readonly customerLinks: CustomerLinks
  readonly customerMessages: CustomerMessages
  readonly jobs: Jobs
  readonly letterheads: Letterheads
  readonly people: People
  readonly passkeys: Passkeys
  readonly photos: Photos
  readonly pins: Pins
  readonly presence: Presence
  readonly sheets: Sheets
  readonly shelf: Shelf
  readonly shop: Shop
  readonly tokens: Tokens
}

/**
 * The data of a workshop as an actor sees and changes them.
 * @param changed told that something is to be checked
 */
export function repositoriesOf(
  sql: Sql,
  actor: Actor,
  judge: Judge,
  changed: () => void = () => undefined,
): Repositories {
  const shop = new Shop(sql, actor, judge, changed)
  const jobs = new Jobs(sql, actor, changed)
  const letterheads = new Letterheads(sql, actor)
  const photos = new Photos(sql, actor)
  return {
    workshop: actor.workshop,
    customerLinks: new CustomerLinks(sql, actor),
    customerMessages: new CustomerMessages(sql, actor),
    jobs,
    letterheads,
    people: new People(sql, actor),
    passkeys: new Passkeys(sql, actor),
    photos,
    pins: new Pins(sql, actor),
    presence: new Presence(sql, actor),
    sheets: new Sheets(sql, actor, judge, { jobs, shop, letterheads, photos }),
    shelf: new Shelf(sql, actor),
    shop,
    tokens: new Tokens(sql, actor),
  }
}
