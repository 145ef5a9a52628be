import fc from 'fast-check'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { anyJobFrom, goodJob, straightJob, withValues } from '#core/testing'
import { judgeJob } from '#core/verdict/job'
import { solve } from '#core/solve/answer'
import { planOf } from '#core/solve/plan'
import { wiredJob } from '#core/assessment/wired'
import { runNow } from '#core/simulation/runs'
import { runIds } from '#core/simulation/run-kinds'
import { plantOf } from '#core/simulation/plant-of-job'
import { inputsOfJob } from '#core/simulation/inputs'
import { compareCandidates } from '#core/compare/candidates'
import { demoShelf } from './lib/demo-shelf'
const demo = readdirSync('demo/jobs').map(f=>JSON.parse(readFileSync('demo/jobs/'+f,'utf8')))
const starts = [...demo, goodJob(), straightJob({kind:'solenoid'})]
const out: any = {}
const random = fc.sample(anyJobFrom(starts), {numRuns: 60, seed: 99})
out.judged = [...starts, ...random].map(j => { const {found, assessment} = judgeJob(j); return [found, assessment] })
out.wired = [...starts, ...random.slice(0,20)].map(j => { const w = wiredJob(j,{}); return [w.runs, w.fittings, w.checks, w.parts] })
out.cand = demo.map(j => compareCandidates(j))
out.runs = demo.map(j => runIds.map(id => runNow(id, plantOf(j,{},'new'), inputsOfJob(j,id)).totals))
out.answers = [...starts, ...random.slice(0,8)].map(j => solve(planOf(j, {}, demoShelf())))
writeFileSync(process.argv[2]!, JSON.stringify(out, (k,v)=> v===Infinity?'inf':v, 1))
