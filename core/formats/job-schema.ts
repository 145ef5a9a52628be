import { isCount } from '#core/job/field'
import Joi from 'joi'
import { crafts, jobFormat, jobFormatVersion, mostParts, stages, usePatterns } from '#core/job/document'
import { howKnown, partKinds, partKindIds, type Field, type PartKind } from '#core/job/fields'
import { mostReadings } from '#core/job/proving'
import { photoPapers } from '#core/job/paper-photos'
import { mostAlternatives, quotationGroups } from '#core/job/quotation'
import { ruleCatalogue, ruleIds, type RuleOverrides } from '#core/rules/rules'

/** Steps, and tests that are read, of one job. */
const mostProved = 1000
/** Most rows of a table in one value. */
export const mostRows = 200
/** Ids of parts in a collection: `charger-1`. */
const numberedIdPattern = /^[a-z]{1,20}-\d{1,6}$/
/** Ids of parts that are named after their place: `main-fuse`. */
const keyedIdPattern = /^[a-z][a-z0-9-]{0,39}$/
export const partIdPattern = ({ keyed }: PartKind): RegExp => (keyed ? keyedIdPattern : numberedIdPattern)
/** Parts of a kind that a job holds at most. */
const mostOf = ({ keyed }: PartKind): number => (keyed ? 4 * mostParts : mostParts)

const text = (most: number) => Joi.string().allow('').max(most)
/** A day there is: no 30th of February. */
export const isoDate = Joi.string()
  .pattern(/^\d{4}-\d{2}-\d{2}$/, 'date')
  .custom((text: string, helpers) => {
    const day = new Date(`${text}T00:00:00Z`)
    return !Number.isNaN(day.getTime()) && day.toISOString().startsWith(text)
      ? text
      : helpers.error('string.pattern.name', { name: 'date' })
  })

function valueSchema(field: Field): Joi.Schema {
  switch (field.type) {
    case 'quantity':
      return (isCount(field) ? Joi.number().integer() : Joi.number())
        .unsafe()
        .min(field.limits[0])
        .max(field.limits[1])
    case 'choice':
      return Joi.valid(...Object.keys(field.options))
    case 'rows':
      return Joi.array()
        .max(mostRows)
        .items(
          Joi.object(
            Object.fromEntries(
              field.columns.map(({ name, limits: [least, most] }) => [
                name,
                Joi.number().min(least).max(most).required(),
              ]),
            ),
          ),
        )
  }
}

const known = (field: Field): Joi.Schema =>
  Joi.object({
    value: valueSchema(field).allow(null).required(),
    how: Joi.valid(...Object.keys(howKnown)),
    when: Joi.string().isoDate().raw(),
    by: text(200),
    from: text(200),
  }).unknown()

const part = (kind: PartKind): Joi.ObjectSchema =>
  Joi.object({
    name: text(200),
    notes: text(5000),
    serial: text(100),
    from: Joi.string().max(60),
    of: Joi.string().max(60),
    shelf: Joi.object({
      code: Joi.string().max(60).required(),
      version: Joi.number().integer().min(1).max(1_000_000).required(),
    }),
    ...Object.fromEntries(Object.entries(kind.fields).map(([name, field]) => [name, known(field)])),
  }).unknown()

const ruleSchema = (id: (typeof ruleIds)[number]): Joi.Schema => {
  const rule = ruleCatalogue[id]
  return rule.kind === 'number'
    ? Joi.number().min(rule.limits[0]).max(rule.limits[1])
    : Joi.valid(...Object.keys(rule.options))
}

/** Messages for invalid values. Joi converts nothing. */
export const inWords: Joi.ValidationOptions = {
  convert: false,
  abortEarly: false,
  errors: { label: false, wrap: { array: false, string: false } },
  messages: {
    'any.required': 'is missing',
    'any.only': 'must be one of: {#valids}',
    'any.unknown': 'is not known here',
    'object.unknown': 'is not a usable name here; parts are named like charger-1',
    'object.base': 'must be a group of values in braces',
    'object.max': 'holds too many parts, at most {#limit}',
    'array.base': 'must be a list',
    'number.base': 'must be a number',
    'number.infinity': 'is too large a number',
    'number.integer': 'must be a whole number',
    'number.min': 'must be {#limit} or more',
    'number.max': 'must be {#limit} or less',
    'string.base': 'must be text',
    'string.max': 'is too long, at most {#limit} characters',
    'string.isoDate': 'must be a date and time such as 2026-11-16T09:20:00Z',
    'string.pattern.name': 'must be a date such as 2026-12-04',
  },
}

/** Rules a shop or a job has changed. */
export const rulesSchema = Joi.object<RuleOverrides>(
  Object.fromEntries(ruleIds.map((id) => [id, ruleSchema(id)])),
)

const count = (most: number) => Joi.number().integer().min(0).max(most)
const listedPart = Joi.object({
  kind: Joi.string().max(40).allow(null).required(),
  code: text(60).required(),
  version: count(1_000_000).required(),
  name: text(200).required(),
  quantity: Joi.number().min(0).max(10_000).required(),
  unit: Joi.valid('', 'm').required(),
  price: Joi.number().min(0).max(10_000_000).allow(null).required(),
})
const changed = Joi.object({
  path: Joi.string()
    .max(120)
    .pattern(/^[a-zA-Z]{1,30}(\/[a-zA-Z0-9-]{1,40}){0,2}$/, 'path')
    .required(),
  before: Joi.any(),
  after: Joi.any(),
})
/** The chosen answer: its steps, and its differences from the survey. */
const specified = Joi.object({
  name: text(500).required(),
  at: Joi.string().isoDate().raw().required(),
  by: text(200).required(),
  battery: Joi.array().max(mostParts).items(listedPart).required(),
  accepted: Joi.array().max(mostRows).items(text(2000)).required(),
  changes: Joi.array().max(2000).items(changed).required(),
  steps: Joi.array()
    .max(mostParts)
    .items(
      Joi.object({
        label: text(300).required(),
        on: text(200).required(),
        hours: Joi.number().min(0).max(1000).required(),
        parts: Joi.array().max(mostParts).items(listedPart).required(),
        settles: Joi.array().max(mostRows).items(text(80)).required(),
      }),
    )
    .required(),
})

const moment = Joi.string().isoDate().raw().required()
const proofId = /^[a-z][a-z0-9-]{0,59}$/
/** Fitting and proving of a job: steps, readings, repairs, differences from the plan. */
const proving = Joi.object({
  steps: Joi.object()
    .pattern(
      proofId,
      Joi.object({
        state: Joi.valid('done', 'put-off').required(),
        when: moment,
        by: text(200).required(),
        note: text(2000),
      }),
    )
    .max(mostProved)
    .required(),
  readings: Joi.object()
    .pattern(
      proofId,
      Joi.array()
        .max(mostReadings)
        .items(
          Joi.object({
            value: Joi.number().min(-1e6).max(1e6).required(),
            when: moment,
            by: text(200).required(),
            from: Joi.valid('typed', 'live', 'file').required(),
          }),
        ),
    )
    .max(mostProved)
    .required(),
  mended: Joi.array()
    .max(mostRows)
    .items(
      Joi.object({
        cause: text(120).required(),
        words: text(500).required(),
        when: moment,
        by: text(200).required(),
      }),
    )
    .required(),
  fitted: Joi.array().max(2000).items(changed).required(),
})

const percent = Joi.number().min(0).max(100)
const lineId = /^[^\p{Cc}]{1,300}$/u
const money = Joi.number().min(0).max(10_000_000)
/** The quotation that is being prepared. */
const quotation = Joi.object({
  lines: Joi.object()
    .pattern(
      lineId,
      Joi.object({
        price: money,
        discountPercent: percent,
        isOptional: Joi.boolean(),
        tax: text(60),
      }),
    )
    .max(mostRows),
  added: Joi.object()
    .pattern(
      lineId,
      Joi.object({
        name: text(200).required(),
        group: Joi.valid(...Object.keys(quotationGroups)).required(),
        quantity: Joi.number().min(0).max(10_000).required(),
        price: money.allow(null).required(),
      }),
    )
    .max(mostRows),
  discountPercent: percent,
  depositPercent: percent,
  validDays: Joi.number().integer().min(1).max(365),
  message: text(5000),
  alternatives: Joi.object().pattern(lineId, specified).max(mostAlternatives),
})

/** Photos that papers show, by the id of the photo. */
const paperPhotos = Joi.object()
  .pattern(
    Joi.string().guid(),
    Joi.object({
      caption: text(200).required(),
      papers: Joi.array()
        .items(Joi.valid(...Object.keys(photoPapers)))
        .unique()
        .required(),
    }),
  )
  .max(mostRows)

/** The schema of each group of a job document, made from the catalogue of fields. */
export const groupSchemas: Readonly<Record<string, Joi.Schema>> = {
  format: Joi.valid(jobFormat).required(),
  version: Joi.number().valid(jobFormatVersion).required(),
  job: Joi.object({
    number: text(40).required(),
    name: text(200).required(),
    customer: text(200),
    contact: text(200),
    craft: Joi.valid(...Object.keys(crafts)),
    registration: text(100),
    location: text(200),
    usePattern: Joi.valid(...Object.keys(usePatterns)),
    wishes: text(5000),
    dueDate: isoDate.allow(''),
    stage: Joi.valid(...Object.keys(stages)).required(),
  })
    .unknown()
    .required(),
  rules: rulesSchema.unknown().required(),
  notes: Joi.object(Object.fromEntries(partKindIds.map((kind) => [kind, text(5000)])))
    .unknown()
    .required(),
  specified,
  proving,
  quotation,
  paperPhotos,
  ...Object.fromEntries(
    partKindIds.map((kind) => [
      kind,
      (partKinds[kind].many
        ? Joi.object()
            .pattern(partIdPattern(partKinds[kind]), part(partKinds[kind]))
            .max(mostOf(partKinds[kind]))
        : part(partKinds[kind])
      ).required(),
    ]),
  ),
}

/** The schema of a job document. Unknown properties are kept. */
export const jobSchema: Joi.ObjectSchema = Joi.object(groupSchemas).unknown().prefs(inWords)
