import type { CraftKind, JobHead } from '#core/job/document'

/** Identifies a craft and its owner. */
export interface CraftIdentity {
  readonly name: string
  readonly kind: CraftKind | null
  readonly registration: string
  readonly location: string
  /** The owner. */
  readonly customer: string
  readonly contact: string
}

/** The craft as a job says it. */
export const identityOfJob = ({
  name,
  craft = undefined,
  registration = '',
  location = '',
  customer = '',
  contact = '',
}: JobHead): CraftIdentity => ({
  name,
  kind: craft ?? null,
  registration,
  location,
  customer,
  contact,
})

/** The head of a job with the known data of its craft. */
export const headOfCraft = (
  { name, kind, registration, location, customer, contact }: CraftIdentity,
  number: string,
): JobHead => ({
  number,
  name,
  stage: 'enquiry',
  ...(kind ? { craft: kind } : {}),
  ...(registration ? { registration } : {}),
  ...(location ? { location } : {}),
  ...(customer ? { customer } : {}),
  ...(contact ? { contact } : {}),
})
