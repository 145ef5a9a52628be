import { fieldOf, present } from '#core/collections/held'
import { partKinds, partKindIds, type Field, type PartKind } from '#core/job/fields'
import { ruleCatalogue, ruleIds } from '#core/rules/rules'
import { jobSchema, partIdPattern } from './job-schema'

/** A JSON Schema, or a piece of one. */
interface Schema {
  readonly properties?: Readonly<Record<string, Schema>>
  readonly patternProperties?: Readonly<Record<string, Schema>>
  readonly enum?: readonly unknown[]
  readonly [keyword: string]: unknown
}

/** Joi's rules for a job, in JSON Schema 2020-12. */
const held = jobSchema['~standard'].jsonSchema.input({ target: 'draft-2020-12' }) as Schema

/** A schema whose properties are changed by name. */
const withProperties = (schema: Schema, change: (name: string, property: Schema) => Schema): Schema => ({
  ...schema,
  properties: Object.fromEntries(
    Object.entries(schema.properties ?? {}).map(([name, property]) => [name, change(name, property)]),
  ),
})

const unitWords = (field: Field): string =>
  field.type === 'quantity' && field.unit ? `${field.measure} Unit: ${field.unit}.` : field.measure

/** A value with its words. Joi leaves null out of a list of options, though it may stand there. */
const known = (field: Field, schema: Schema): Schema => ({
  ...withProperties(schema, (name, property) =>
    name === 'value' && property.enum ? { ...property, enum: [...property.enum, null] } : property,
  ),
  title: field.label,
  description: unitWords(field),
})

const part = (kind: PartKind, schema: Schema): Schema => ({
  ...withProperties(schema, (name, property) => {
    const field = kind.fields[name]
    return field ? known(field, property) : property
  }),
  title: kind.one,
  description: kind.about,
})

/** Parts of a kind: exactly one, or a collection by id. */
function parts(kind: PartKind, schema: Schema): Schema {
  if (!kind.many) return part(kind, schema)
  const { source } = partIdPattern(kind)
  return {
    ...schema,
    patternProperties: { [source]: part(kind, fieldOf(present(schema.patternProperties), source)) },
  }
}

const described: Readonly<Record<string, (schema: Schema) => Schema>> = {
  // A date may be empty, which Joi leaves out of the pattern.
  job: (schema) =>
    withProperties(schema, (name, property) =>
      name === 'dueDate' ? { ...property, pattern: '^(\\d{4}-\\d{2}-\\d{2})?$' } : property,
    ),
  rules: (schema) => ({
    ...withProperties(schema, (name, property) => {
      const id = ruleIds.find((rule) => rule === name)
      return id ? { ...property, title: ruleCatalogue[id].label } : property
    }),
    description: 'Shop rules this job overrides.',
  }),
  notes: (schema) => ({ ...schema, description: 'What the installer wrote at a station.' }),
  specified: (schema) => ({
    ...schema,
    description:
      'The answer that was chosen: what is done, and what differs by it from the survey, property by property.',
  }),
  quotation: (schema) => ({
    ...schema,
    description:
      'The quotation that is being prepared: what differs from the chosen answer and the workshop’s settings.',
  }),
  paperPhotos: (schema) => ({ ...schema, description: 'Photos that papers show, by the id of the photo.' }),
  proving: (schema) => ({
    ...schema,
    description: 'How the job was fitted and proved: steps done, readings taken, what was fitted otherwise.',
  }),
  ...Object.fromEntries(
    partKindIds.map((kind) => [kind, (schema: Schema) => parts(partKinds[kind], schema)]),
  ),
}

/**
 * The published JSON Schema (2020-12) of a job file: its rules come from the Joi schema, its words from the
 * catalogue of fields.
 */
export const jobJsonSchema: Schema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Jovial Anchor job file',
  ...withProperties(held, (name, property) => described[name]?.(property) ?? property),
}
