import { allChecks } from '../../core/assessment/checks'
import { inSentence } from '../../core/units/format'

const titles = new Map(allChecks.map((check) => [check.id, inSentence(check.title)]))

/** The title of a check inside a sentence. */
export const checkTitle = (id: string): string => titles.get(id) ?? id
