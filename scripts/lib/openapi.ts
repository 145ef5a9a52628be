import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type Joi from 'joi'
import { refusalsOf, type RouteSpec } from '../../server/utils/route-spec'
import { routesIn, type Route } from './hostile'
import { root } from './machine.mjs'

/** A part of an OpenAPI document. */
type Part = Readonly<Record<string, unknown>>

/** A Joi schema as JSON Schema. */
const schemaOf = (schema: Joi.Schema, side: 'input' | 'output'): Part =>
  (
    schema as unknown as {
      readonly '~standard': { readonly jsonSchema: Record<typeof side, (options: object) => Part> }
    }
  )['~standard'].jsonSchema[side]({ target: 'draft-2020-12' })

const content = (type: string, schema: Part): Part => ({ content: { [type]: { schema } } })

const refusalWords: Readonly<Record<number, string>> = {
  400: 'The body is not valid JSON.',
  401: 'Nobody is signed in, or the key is not valid.',
  403: 'The role is too small.',
  404: 'There is no such thing in this workshop.',
  409: 'Somebody changed it first, or it stands in the way of something else.',
  413: 'The body is too large.',
  415: 'The media type of the body is not taken.',
  422: 'A value is missing or wrong; `fields` says which and why.',
  429: 'Too many tries. The answer says how long to wait.',
  503: 'The server or the database cannot answer just now. Nothing was saved. Try again in a moment.',
}
const refused: Part = content('application/json', { $ref: '#/components/schemas/Refusal' })

/** The words of the comment before a route. */
function summaryOf(source: string): string {
  const comment = /\/\*\*((?:(?!\*\/)[\s\S])*)\*\/\s*export default/.exec(source)?.[1] ?? ''
  return comment
    .replace(/^\s*\*/gm, '')
    .replace(/\s+/g, ' ')
    .trim()
}

function parametersOf({ path }: Route, { query }: RouteSpec): readonly Part[] {
  const inPath = [...path.matchAll(/\[(\w+)\]/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }))
  if (!query) return inPath
  const { properties = {}, required = [] } = schemaOf(query, 'input') as {
    properties?: Readonly<Record<string, Part>>
    required?: readonly string[]
  }
  const inQuery = Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    ...(required.includes(name) && { required: true }),
    schema,
  }))
  return [...inPath, ...inQuery]
}

function bodyOf({ body, takes }: RouteSpec): Part | undefined {
  if (body) return { required: true, ...content('application/json', schemaOf(body.schema, 'input')) }
  const types = takes?.map((type) => [type, { schema: {} }] as const)
  return types && { required: true, content: Object.fromEntries(types) }
}

function responsesOf(spec: RouteSpec): Part {
  const { answer } = spec
  const good =
    'json' in answer
      ? content('application/json', schemaOf(answer.json, 'output'))
      : content(answer.media, { type: 'string' })
  const refusals = [...refusalsOf(spec), 503]
    .sort()
    .map((status) => [status, { $ref: `#/components/responses/${status}` }])
  return {
    [answer.status]: { description: answer.status === 201 ? 'Made.' : 'Done.', ...good },
    ...Object.fromEntries(refusals),
  }
}

async function operationOf(route: Route): Promise<Part> {
  const file = join(root, 'server/api', route.file)
  const { spec } = ((await import(pathToFileURL(file).href)) as { default: { spec: RouteSpec } }).default
  const body = bodyOf(spec)
  return {
    summary: summaryOf(readFileSync(file, 'utf8')),
    ...(spec.needs === 'anyone' ? { security: [] } : { 'x-least-role': spec.needs }),
    parameters: parametersOf(route, spec),
    ...(body && { requestBody: body }),
    responses: responsesOf(spec),
  }
}

/** The routes of the server as an OpenAPI 3.1 description, made from their own declarations. */
export async function describeApi(): Promise<Part> {
  const paths: Record<string, Record<string, Part>> = {}
  const routes = routesIn(join(root, 'server/api')).filter(({ path }) => !path.includes('[...]'))
  for (const route of [...routes].sort((a, b) => a.path.localeCompare(b.path))) {
    const path = route.path.replace(/\[(\w+)\]/g, '{$1}')
    paths[path] = { ...paths[path], [route.method.toLowerCase()]: await operationOf(route) }
  }
  const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Jovial Anchor',
      version,
      description:
        'In a shop each request needs a key, which the owner makes under People. On one machine none is needed.',
    },
    security: [{ key: [] }],
    paths,
    components: {
      responses: Object.fromEntries(
        Object.entries(refusalWords).map(([status, description]) => [status, { description, ...refused }]),
      ),
      securitySchemes: { key: { type: 'http', scheme: 'bearer' } },
      schemas: {
        Refusal: {
          type: 'object',
          properties: {
            error: { type: 'string', description: 'What is wrong, in words.' },
            fields: { type: 'object', additionalProperties: { type: 'string' } },
            theirs: { description: 'What somebody else saved first.' },
          },
          required: ['error'],
        },
      },
    },
  }
}
