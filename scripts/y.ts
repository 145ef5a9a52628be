import { readFileSync } from 'node:fs'
import { planOf } from '#core/solve/plan'
import { Evaluator } from '#core/solve/evaluate'
import { search } from '#core/solve/front'
import { adjust, answersOf } from '#core/solve/answer'
import { specifiedBy } from '#core/solve/specify'
import { withSpecified } from '#core/job/as-specified'
import { summaryOf } from '#core/papers/summary'
import { orderOf } from '#core/proving/order/order'
import { metric } from '#core/units/display'
import { demoShelf } from './lib/demo-shelf'
const job = JSON.parse(readFileSync('demo/jobs/0421-rescue-van.json','utf8'))
const plan = planOf(job, {}, demoShelf() as never)
const ev = new Evaluator(plan)
const a = answersOf(ev, [...search(ev)]).answers[0]!
console.log(a.name, a.steps.map(s=>s.label))
const i = a.steps.findIndex(s=>/above/.test(s.label))
const b = adjust(ev, a, [{step:i, off:true}])
console.log(b.name, b.verdict, b.headline, b.steps.map(s=>s.label), b.inTheWay.map(c=>c.summary), b.accepted)
const s = specifiedBy(b,'x','2026-01-01T00:00:00Z')
console.log(JSON.stringify(s.steps.map(x=>x.label)), s.changes.map(c=>c.path))
const done = withSpecified(job, s)
const text = JSON.stringify(summaryOf(done,{rules:{},units:metric,name:'',madeAt:'2026-01-01T00:00:00Z'}))
console.log(text.match(/[^"]*above 10[^"]*/g), text.match(/[^"]*warmer[^"]*/g))
console.log(orderOf(done,{}).map(x=>x.words).filter(w=>/above|warm/.test(w)))
