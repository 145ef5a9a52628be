import type { Sql } from 'postgres'
import type { Judge } from '../judging/judge'
import type { Actor } from './actor'
import { CalendarFeeds } from './calendar-feeds'
import { CraftPhotos } from './craft-photos'
import { Crafts } from './crafts'
import { CustomerDataStore } from './customer-data'
import { CustomerLinks } from './customer-links'
import { CustomerMessages } from './customer-messages'
import { Customers } from './customers'
import { FollowUp } from './follow-up'
import { JobHistory } from './job-history'
import { JobList } from './job-list'
import { Jobs } from './jobs'
import { Letterheads } from './letterheads'
import { Logbooks } from './logbooks'
import { People } from './people'
import { Passkeys } from './passkeys'
import { Photos } from './photos'
import { Pins } from './pins'
import { Presence } from './presence'
import { Reminders } from './reminders'
import { Sheets } from './sheets'
import { Shelf } from './shelf'
import { Shop } from './shop'
import { Today } from './today'
import { Tokens } from './tokens'

export interface Repositories {
  /** The id of the workshop that all of them are of. */
  readonly workshop: string
  readonly calendarFeeds: CalendarFeeds
  readonly craftPhotos: CraftPhotos
  readonly crafts: Crafts
  readonly customers: Customers
  readonly customerData: CustomerDataStore
  readonly customerLinks: CustomerLinks
  readonly customerMessages: CustomerMessages
  readonly followUp: FollowUp
  readonly jobs: Jobs
  readonly jobHistory: JobHistory
  readonly jobList: JobList
  readonly letterheads: Letterheads
  readonly logbooks: Logbooks
  readonly people: People
  readonly passkeys: Passkeys
  readonly photos: Photos
  readonly pins: Pins
  readonly presence: Presence
  readonly reminders: Reminders
  readonly sheets: Sheets
  readonly shelf: Shelf
  readonly shop: Shop
  readonly today: Today
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
  const logbooks = new Logbooks(sql, actor)
  const reminders = new Reminders(sql, actor)
  const crafts = new Crafts(sql, actor)
  const customers = new Customers(sql, actor)
  const followUp = new FollowUp(sql, actor, { logbooks, reminders })
  return {
    workshop: actor.workshop,
    calendarFeeds: new CalendarFeeds(sql, actor),
    craftPhotos: new CraftPhotos(sql, actor, logbooks),
    crafts,
    customers,
    customerData: new CustomerDataStore(sql, actor, { customers, crafts, logbooks, reminders }),
    customerLinks: new CustomerLinks(sql, actor),
    customerMessages: new CustomerMessages(sql, actor),
    followUp,
    jobs,
    jobHistory: new JobHistory(sql, actor),
    jobList: new JobList(sql, actor),
    letterheads,
    logbooks,
    people: new People(sql, actor),
    passkeys: new Passkeys(sql, actor),
    photos,
    pins: new Pins(sql, actor),
    presence: new Presence(sql, actor),
    reminders,
    sheets: new Sheets(sql, actor, judge, { jobs, shop, letterheads, photos, followUp }),
    shelf: new Shelf(sql, actor),
    shop,
    today: new Today(sql, actor, { shop, logbooks }),
    tokens: new Tokens(sql, actor),
  }
}
