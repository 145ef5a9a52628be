import batteries from './batteries'
import contacts from './contacts'
import type { Fault } from './fault'
import joints from './joints'
import leftovers from './leftovers'
import settings from './settings'
import signals from './signals'
import units from './units'

/** Everything that may be wrong, a topic a file. */
export const allFaults: readonly Fault[] = [
  ...joints,
  ...contacts,
  ...signals,
  ...settings,
  ...leftovers,
  ...batteries,
  ...units,
]
