// The words of the product, each with its meaning. The help page and docs/glossary.md show them.

interface Word {
  readonly word: string
  readonly meaning: string
}
interface WordGroup {
  readonly title: string
  readonly words: readonly Word[]
}

const words = (pairs: readonly (readonly [word: string, meaning: string])[]): readonly Word[] =>
  pairs.map(([word, meaning]) => ({ word, meaning }))

/** The words by topic; a topic is where a view links to. */
export const glossary = {
  verdicts: {
    title: 'Verdicts',
    words: words([
      ['Suits', 'Nothing has to change.'],
      ['Suits after changes', 'It works once you make the listed changes.'],
      ['Measure first', 'A missing value decides. The finding names it.'],
      ['Does not suit', 'The arrangement has to be replaced.'],
      ['As found', 'The system before the work.'],
      ['As specified', 'The system with the chosen answer.'],
      ['As fitted', 'The system as built and tested.'],
    ]),
  },
  evidence: {
    title: 'Evidence',
    words: words([
      ['measured', 'Read with an instrument.'],
      ['read from label', 'Printed on the part.'],
      ['maker’s data', 'From the data sheet.'],
      ['customer says', 'Told by the customer.'],
      ['assumed', 'Proposed by this product or set in an answer, and not confirmed.'],
      ['typical value', 'A default from the shop rules or the trade, used while nothing is entered.'],
      ['plausible range', 'The values an unknown could have. A verdict must hold for all of them.'],
    ]),
  },
  system: {
    title: 'System',
    words: words([
      ['house bank', 'All batteries that supply the loads.'],
      ['pack', 'One battery of a bank.'],
      ['starting battery', 'The battery that turns an engine.'],
      ['source', 'Anything that charges: mains charger, solar controller, DC-DC, alternator, generator.'],
      ['link', 'The connection between an alternator and the house bank.'],
      ['charge window', 'The lowest to the highest charge voltage of the battery.'],
      ['resting voltage', 'The voltage of a battery after an hour without current.'],
      ['run signal', 'The wire that tells a DC-DC or a relay that the engine runs.'],
      ['charge stop', 'The signal with which a BMS stops a source.'],
      ['BMS', 'The battery management system: electronics in the battery that disconnect it at its limits.'],
    ]),
  },
  answers: {
    title: 'Specify',
    words: words([
      ['answer', 'A complete set of changes with parts, settings, cost and hours.'],
      ['condition', 'A measurement on which an answer depends.'],
      ['approach', 'One of several ways that workshops do the same thing. The shop rules choose it.'],
      ['shelf', 'The shop’s parts with their data and prices.'],
      ['to issue', 'To freeze a paper with its number and date.'],
    ]),
  },
  wiring: {
    title: 'Wiring',
    words: words([
      ['run', 'One conductor between two posts, with its number: W5. Its own return is W5−.'],
      ['post', 'A point where a lug is bolted on.'],
      ['fitting', 'A fuse, switch, relay, shunt, bar or plug, with its number: F1, S1.'],
      ['case', 'A situation in which the wiring is calculated: all loads on, engine at idle, a short.'],
      ['found, new, goes', 'A part that stays, a part that is bought, a part that is removed.'],
      ['set by hand', 'Changed by you. It stays when the rest is proposed again.'],
    ]),
  },
  proving: {
    title: 'Prove',
    words: words([
      ['essential test', 'A test to make on this job. There are at most 15.'],
      ['walk-round', 'The list of sizes, settings and lugs that you check by eye and hand.'],
      ['expected', 'The reading that the wiring predicts, with its tolerance.'],
      ['fault', 'Something that can be wrong, from the product’s list.'],
      ['hidden fault', 'A listed fault that the readings so far do not show.'],
      ['dangerous fault', 'A hidden fault that can start a fire.'],
      ['repaired', 'A found fault that was put right. Its readings are taken again.'],
      ['skipped', 'A step left out, with its reason.'],
    ]),
  },
  runs: {
    title: 'Run',
    words: words([
      ['run of the system', 'A simulation over hours, days or a year.'],
      ['event', 'A switch, relay, BMS or fuse that acts, with its time and reason.'],
      ['not supplied', 'Load energy that the battery could not deliver.'],
      ['to full', 'The time until the current falls to the tail current.'],
    ]),
  },
  logbook: {
    title: 'Craft and logbook',
    words: words([
      ['craft', 'A vessel, vehicle, trailer, motorcycle or cabin with its owner, jobs and logbook.'],
      ['fleet', 'Craft of one owner with the same type.'],
      [
        'logbook',
        'Visits, readings, replaced parts and notes of a craft. Entries are added and never changed.',
      ],
      [
        'trend',
        'The line through readings over the years, with the range in which it lies in 90 of 100 cases.',
      ],
      ['left open', 'A reading outside its range, a skipped step or a missing test at signing.'],
      ['value when new', 'The reference of a limit: the label of a battery, the first reading of a joint.'],
      ['reminder', 'Work on a craft with its day.'],
    ]),
  },
  people: {
    title: 'People',
    words: words([
      ['owner', 'Does everything, and manages people.'],
      ['installer', 'Does everything except manage people.'],
      ['apprentice', 'Surveys, wires and proves. Cannot issue papers, change rules or the shelf, or delete.'],
      ['invitation', 'A link or code with which a person sets a password, once.'],
      ['shop', 'A start for several people and devices on a network, with sign-in.'],
      ['offline', 'The server cannot be reached. Changes stay on this device and are sent later.'],
      ['pinned job', 'A job that stays on this device however long ago it was changed.'],
      ['key', 'Lets another program work with the jobs. It has a role and ends after its days.'],
    ]),
  },
} as const satisfies Readonly<Record<string, WordGroup>>

/** Ids of the topics. */
export type GlossaryTopic = keyof typeof glossary

/** The glossary as Markdown. */
export function describeGlossary(): string {
  const groups: readonly WordGroup[] = Object.values(glossary)
  return [
    '# Glossary',
    '',
    'One word for one thing. Texts of the product, its papers, its commands and its docs use these words.',
    'Made by `npm run schema` from `core/words/glossary.ts`.',
    '',
    ...groups.flatMap(({ title, words: list }) => [
      `## ${title}`,
      '',
      '| Word | Meaning |',
      '|---|---|',
      ...list.map(({ word, meaning }) => `| ${word} | ${meaning} |`),
      '',
    ]),
  ].join('\n')
}
