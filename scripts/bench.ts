// npm run bench: how long the core takes, how well steps are found, how fast lists answer, how large the page
// is and how free it stays.
// npm run bench -- PART…: those alone; see the parts below.
import { benchAnswers } from './bench/answers'
import { benchBefore } from './bench/before'
import { benchCore } from './bench/core'
import { benchCraft } from './bench/craft'
import { benchDiagnosis, benchDiagnosisOf } from './bench/diagnosis'
import { benchKept } from './bench/kept'
import { benchKeystrokes } from './bench/keystrokes'
import { benchLabels } from './bench/labels'
import { benchLists } from './bench/lists'
import { benchLoad } from './bench/load'
import { benchOffline } from './bench/offline'
import { benchPage } from './bench/page'
import { benchRuns } from './bench/runs'
import { benchScale } from './bench/scale'
import { benchSize } from './bench/size'
import { benchSteps } from './bench/steps'
import { benchSurvey } from './bench/survey'
import { benchWiring } from './bench/wiring'
import { withDemo } from './lib/demo'

/** Those that take minutes and much room: carried out where they are named. */
const long: Readonly<Record<string, () => void | Promise<void>>> = {
  labels: benchLabels,
  load: benchLoad,
  scale: () => withDemo(benchScale),
}
const parts: Readonly<Record<string, () => void | Promise<void>>> = {
  core: benchCore,
  kept: benchKept,
  runs: benchRuns,
  answers: benchAnswers,
  before: benchBefore,
  steps: benchSteps,
  wiring: benchWiring,
  diagnosis: benchDiagnosis,
  keystrokes: () => withDemo(benchKeystrokes),
  lists: () => withDemo(benchLists),
  craft: () => withDemo(benchCraft),
  page: () => withDemo(benchPage),
  offline: () => withDemo(benchOffline),
  size: () => withDemo(benchSize),
  survey: () => withDemo(benchSurvey),
}

const asked = process.argv.slice(2)
// A process of its own for one job of the diagnosis.
if (asked[0] === 'diagnosis-of') {
  await benchDiagnosisOf(asked[1]!)
  process.exit()
}
const all = { ...parts, ...long }
for (const name of asked.filter((part) => !Object.hasOwn(all, part)))
  console.error(`Unknown part ${name}. Choose one of ${Object.keys(all).join(', ')}`)
for (const [name, bench] of Object.entries(all))
  if (asked.includes(name) || (asked.length === 0 && !Object.hasOwn(long, name))) await bench()
