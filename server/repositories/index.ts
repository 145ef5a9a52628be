import type { Sql } from 'postgres'
import type { Judge } from '../judging/judge'
import type { Actor } from './actor'
import { Jobs } from './jobs'
import { People } from './people'
import { Photos } from './photos'
import { Sheets } from './sheets'
import { Shelf } from './shelf'
import { Shop } from './shop'

export interface Repositories {
  readonly jobs: Jobs
  readonly people: People
  readonly photos: Photos
  readonly sheets: Sheets
  readonly shelf: Shelf
  readonly shop: Shop
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
  return {
    jobs,
    people: new People(sql, actor),
    photos: new Photos(sql, actor),
    sheets: new Sheets(sql, actor, judge, jobs, shop),
    shelf: new Shelf(sql, actor),
    shop,
  }
}
