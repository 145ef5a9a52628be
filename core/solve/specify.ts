import type { Specified } from '#core/job/specified'
import type { Answer } from './answer'

/** An answer as the specification of its job. */
export const specifiedBy = (answer: Answer, by: string, at: string): Specified => ({
  name: answer.name,
  at,
  by,
  battery: answer.bank,
  accepted: answer.accepted,
  changes: answer.changes,
  steps: [
    ...answer.steps.map(({ label, on, parts, hours, settles }) => ({ label, on, parts, hours, settles })),
    ...(answer.wiring.parts.length > 0
      ? [
          {
            label: 'Wire it as drawn',
            on: '',
            parts: answer.wiring.parts,
            hours: answer.wiring.hours,
            settles: [],
          },
        ]
      : []),
  ],
})
