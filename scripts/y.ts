import { readFileSync } from 'node:fs'
import { planOf } from '#core/solve/plan'
import { Evaluator } from '#core/solve/evaluate'
import { search } from '#core/solve/front'
import { withWiringSteps, wiringChecksOf } from '#core/solve/wiring'
import { changesBetween } from '#core/job/changes'
import { demoShelf } from './lib/demo-shelf'
const job = JSON.parse(readFileSync('demo/jobs/0417-oyster-workboat.json','utf8'))
const plan = planOf(job, {}, demoShelf() as never)
const ev = new Evaluator(plan)
let n=0
for (const o of search(ev)) {
  const found = ev.evaluate(o.index)
  if (!/Ternstrom 60 L/.test(found.name) || !/30 A DC-DC/.test(found.name)) continue
  if (n++>0) break
  const d = withWiringSteps(plan, found)
  console.log(found.name, d.steps.map(s=>[s.ref.id,s.ref.on,s.label]), JSON.stringify(d.job.fittings))
  const ch = changesBetween(plan.job,d.job)
  console.log(ch.filter(c=>c.path.startsWith('fitt')), wiringChecksOf(plan,ch).filter(c=>c.verdict!=='suits').map(c=>[c.key,c.summary,c.formula]))
}
