import type { Sql } from 'postgres'
import type { Judge } from '../judging/judge'
import type { Actor } from './actor'
import { Jobs } from './jobs'
import { Photos } from './photos'
import { Sheets } from './sheets'
import { Shelf } from './shelf'
import { Shop } from './shop'

export interface Repositories {
  readonly jobs: Jobs
  readonly photos: Photos
  readonly sheets: Sheets
  readonly shelf: Shelf
  readonly shop: Shop
}

/** The data of a workshop as an actor sees and changes them. */
export function repositoriesOf(sql: Sql, actor: Actor, judge: Judge): Repositories {
  const shop = new Shop(sql, actor, judge)
  const jobs = new Jobs(sql, actor, judge, shop)
  return {
    jobs,
    photos: new Photos(sql, actor),
    sheets: new Sheets(sql, actor, judge, jobs, shop),
    shelf: new Shelf(sql, actor),
    shop,
  }
}
