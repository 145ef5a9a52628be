import { expect, it } from 'vitest'
import { jobOfView } from './job-path'

it('is the job of each of its views, and none of an issued paper or of another page', () => {
  for (const view of ['', '/', '/specify', '/papers/booklet'])
    expect(jobOfView(`/jobs/a-1${view}`)).toBe('a-1')
  for (const other of ['/', '/jobs', '/jobs/', '/jobs/a-1/sheets/2', '/craft/a-1', '/x/jobs/a-1'])
    expect(jobOfView(other), other).toBeUndefined()
})
