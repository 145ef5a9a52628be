import { readFileSync, readdirSync } from 'node:fs'
import { planOf } from '#core/solve/plan'
import { solve } from '#core/solve/answer'
import { judgeJob } from '#core/verdict/job'
import { withSpecified } from '#core/job/as-specified'
import { wiredJob } from '#core/assessment/wired'
import { demoShelf } from './lib/demo-shelf'
const shelf = demoShelf()
for (const f of readdirSync('demo/jobs').filter(f=>process.argv[2] ? f.includes(process.argv[2]) : true)) {
  const job = JSON.parse(readFileSync('demo/jobs/'+f,'utf8'))
  const { answers, nearest } = solve(planOf(job, {}, shelf as never))
  console.log('==', f, answers.length, nearest?.name)
  for (const a of answers) {
    const done = withSpecified(job, { name: a.name, at: '', by: '', battery: [], steps: [], accepted: a.accepted, changes: a.changes })
    const { specified, wiring } = judgeJob(done)
    console.log(' ', a.name, '|', a.verdict, a.headline, '| spec:', specified!.verdict, specified!.headline, a.figures.cost, a.conditions.map(c=>c.path+JSON.stringify(c.range)).join())
    const w = wiredJob(done,{})
    for (const c of wiring!.checks) if (c.verdict!=='suits') console.log('     ', c.key, c.verdict, c.summary, c.formula, JSON.stringify(c.remedies), JSON.stringify(w.network.posts.find(p=>c.on==='fittings/'+p.id)?.fitting))
  }
}
