import { StepDetector } from '#core/loads/detect'
import { judgeSteps } from '#core/loads/judge'
import { chanceVehicle } from '#core/loads/stand-in'

/** How well steps in a measured current are found. */
export function benchSteps(): void {
  const streams = 200
  const found = { there: 0, found: 0, reported: 0, wrong: 0 }
  for (let seed = 1; seed <= streams; seed++) {
    const { readings, truth } = chanceVehicle(seed, { noiseA: 0.15 })
    const detector = new StepDetector()
    const judged = judgeSteps(
      readings.flatMap((reading) => [...detector.push(reading)]),
      truth,
    )
    for (const key of Object.keys(found) as (keyof typeof found)[]) found[key] += judged[key]
  }
  const percent = (share: number): string => `${(share * 100).toFixed(2)} %`
  console.log(
    `Steps of 0.5 A or more in ${streams} streams of 20 min, noise 0.15 A, cycling fridge: ${found.found} of ${found.there} found (${percent(found.found / found.there)}), ${found.wrong} of ${found.reported} reported wrongly (${percent(found.wrong / found.reported)})`,
  )
}
