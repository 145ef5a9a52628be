import type { Check } from '../check'
import * as alternator from './alternator'
import * as battery from './battery'
import * as charger from './charger'
import * as cold from './cold'
import * as dcdc from './dcdc'
import * as link from './link'

const isCheck = (value: unknown): value is Check => typeof value === 'object' && value !== null && 'isCheck' in value

/** Every check, by topic in the order an installer would name them. Exporting a check from its topic file puts it here. */
export const allChecks: readonly Check[] = [charger, link, dcdc, alternator, cold, battery].flatMap((topic) => Object.values(topic).filter(isCheck))
