import { crafts, jobFormat, jobFormatVersion, stages, usePatterns } from '#core/job/document'
import { howKnown, partKinds, partKindIds, type Field, type PartKind } from '#core/job/fields'
import { ruleCatalogue, ruleIds } from '#core/rules/rules'
import { mostParts, mostRows, partIdPattern } from './job-schema'

type Schema = Readonly<Record<string, unknown>>

const text = (maxLength: number): Schema => ({ type: 'string', maxLength })
const oneOf = (options: object): Schema => ({ enum: Object.keys(options) })

function valueSchema(field: Field): Schema {
  switch (field.type) {
    case 'quantity':
      return { type: ['number', 'null'], minimum: field.limits[0], maximum: field.limits[1] }
    case 'choice':
      return { enum: [...Object.keys(field.options), null] }
    case 'rows':
      return {
        type: ['array', 'null'],
        maxItems: mostRows,
        items: {
          type: 'object',
          required: field.columns.map(({ name }) => name),
          additionalProperties: false,
          properties: Object.fromEntries(
            field.columns.map(({ name, limits: [minimum, maximum], unit }) => [
              name,
              { type: 'number', minimum, maximum, description: `Unit: ${unit}.` },
            ]),
          ),
        },
      }
  }
}

const known = (field: Field): Schema => ({
  type: 'object',
  title: field.label,
  description:
    field.type === 'quantity' && field.unit ? `${field.measure} Unit: ${field.unit}.` : field.measure,
  required: ['value'],
  properties: { value: valueSchema(field), how: oneOf(howKnown), when: { type: 'string' }, by: text(200) },
})

const part = (kind: PartKind): Schema => ({
  type: 'object',
  title: kind.one,
  description: kind.about,
  properties: {
    name: text(200),
    notes: text(5000),
    from: text(60),
    of: text(60),
    shelf: {
      type: 'object',
      description: 'The shelf part its values were taken from.',
      required: ['code', 'version'],
      additionalProperties: false,
      properties: { code: text(60), version: { type: 'integer', minimum: 1, maximum: 1_000_000 } },
    },
    ...Object.fromEntries(Object.entries(kind.fields).map(([name, field]) => [name, known(field)])),
  },
})

/** The published JSON Schema (2020-12) of a job file, made from the catalogue of fields. */
export const jobJsonSchema: Schema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Jovial Anchor job file',
  type: 'object',
  required: ['format', 'version', 'job', 'rules', 'notes', ...partKindIds],
  properties: {
    format: { const: jobFormat },
    version: { const: jobFormatVersion },
    job: {
      type: 'object',
      required: ['number', 'name', 'stage'],
      properties: {
        number: text(40),
        name: text(200),
        customer: text(200),
        contact: text(200),
        craft: oneOf(crafts),
        registration: text(100),
        location: text(200),
        usePattern: oneOf(usePatterns),
        wishes: text(5000),
        dueDate: { type: 'string', pattern: '^(\\d{4}-\\d{2}-\\d{2})?$' },
        stage: oneOf(stages),
      },
    },
    rules: {
      type: 'object',
      description: 'Shop rules this job overrides.',
      properties: Object.fromEntries(
        ruleIds.map((id) => {
          const rule = ruleCatalogue[id]
          return [
            id,
            rule.kind === 'number'
              ? { type: 'number', minimum: rule.limits[0], maximum: rule.limits[1], title: rule.label }
              : { ...oneOf(rule.options), title: rule.label },
          ]
        }),
      ),
    },
    notes: {
      type: 'object',
      description: 'What the installer wrote at a station.',
      properties: Object.fromEntries(partKindIds.map((kind) => [kind, text(5000)])),
    },
    specified: {
      type: 'object',
      description:
        'The answer that was chosen: what is done, and what differs by it from the survey, property by property.',
      required: ['name', 'at', 'by', 'battery', 'steps', 'accepted', 'changes'],
    },
    ...Object.fromEntries(
      partKindIds.map((kind) => [
        kind,
        partKinds[kind].many
          ? {
              type: 'object',
              maxProperties: mostParts,
              additionalProperties: false,
              patternProperties: { [partIdPattern.source]: part(partKinds[kind]) },
            }
          : part(partKinds[kind]),
      ]),
    ),
  },
}
