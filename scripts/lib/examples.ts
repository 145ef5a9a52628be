import { readdirSync, readFileSync } from 'node:fs'
import { batteryCases } from '#core/assessment/checks/battery.cases'
import { systemCases } from '#core/assessment/checks/system.cases'
import { wholeCases } from '#core/assessment/checks/whole.cases'
import { wiringCases } from '#core/assessment/checks/wiring.cases'
import type { Example } from '#core/formats/describe-checks'
import type { JobDocument } from '#core/job/document'

const folder = new URL('../../demo/jobs/', import.meta.url)

/** Jobs that between them meet every check: the demo jobs first, then the cases that test the checks. */
export const examples = (): Example[] => [
  ...readdirSync(folder).map((name) => ({
    title: `job ${name.slice(0, 4)}`,
    job: JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
  })),
  ...[batteryCases, systemCases, wholeCases, wiringCases].flatMap((cases) =>
    Object.values(cases).flatMap((list) =>
      list
        .filter((c) => !c.absent && c.verdict !== 'measure-first')
        .map(({ job, rules }) => ({ title: 'a test job', job, rules })),
    ),
  ),
]
