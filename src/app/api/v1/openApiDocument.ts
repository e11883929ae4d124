import { kindList } from '@/core/estate'
import { defaultBodyBytes, operations, type Operation } from './contract'

/** What every refusal says. */
const refusalSchema = {
  type: 'object',
  required: ['code', 'what', 'why', 'remedy'],
  properties: {
    code: { type: 'string' },
    what: { type: 'string' },
    why: { type: 'string' },
    remedy: { type: 'string' },
  },
}

const refusal = (description: string) => ({
  description,
  content: { 'application/json': { schema: { $ref: '#/components/schemas/Refusal' } } },
})

const kindSchemas = new Map<object, string>(
  kindList.map(({ schema, words }) => [
    schema,
    words.one.replace(/(^| )(.)/g, (_, _space, letter: string) => letter.toUpperCase()),
  ]),
)

/** A schema in which the kinds of object stand by reference: each is said once in the document. */
function shared(schema: unknown): unknown {
  if (typeof schema !== 'object' || schema === null) return schema
  const name = kindSchemas.get(schema)
  if (name !== undefined) return { $ref: `#/components/schemas/${name}` }
  if (Array.isArray(schema)) return schema.map(shared)
  return Object.fromEntries(Object.entries(schema).map(([key, value]) => [key, shared(value)]))
}

/** In what ways an operation refuses, by what it takes. */
function refusalsOf(operation: Operation, hasParameters: boolean): Record<string, object> {
  const isOpen = operation.isOpen === true
  return {
    ...(hasParameters || operation.body !== undefined ? { '400': refusal('Something breaks its schema') } : {}),
    ...(isOpen ? {} : { '401': refusal('Nobody is signed in, and no token was sent') }),
    ...(operation.method === 'get'
      ? {}
      : { '403': refusal('It came from a page of another site, or there is no right to it') }),
    ...(operation.path.includes('{id}') ? { '404': refusal('It is not there') } : {}),
    ...(operation.body === undefined
      ? {}
      : { '413': refusal(`The body is longer than ${operation.bodyBytes ?? defaultBodyBytes} bytes`) }),
    '503': refusal('The database does not answer'),
  }
}

const parametersOf = ({ path, query, requiredQuery }: Operation) => [
  ...(path.includes('{id}')
    ? [{ name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } }]
    : []),
  ...Object.entries(query ?? {}).map(([name, schema]) => ({
    name,
    in: 'query',
    required: requiredQuery?.includes(name) ?? false,
    schema,
  })),
]

/** One operation, as the document tells it. */
function described(operationId: string, operation: Operation): object {
  const parameters = parametersOf(operation)
  const content =
    operation.answers === undefined ? undefined : { 'application/json': { schema: shared(operation.answers) } }
  return {
    operationId,
    summary: operation.summary,
    ...(operation.isOpen === true ? { security: [] } : {}),
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(operation.body === undefined
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: operation.body } } } }),
    responses: {
      [String(operation.status ?? 200)]: { description: 'Done', ...(content === undefined ? {} : { content }) },
      ...refusalsOf(operation, parameters.length > 0),
      default: refusal('Refused, with the reason and the way out'),
    },
  }
}

/** The OpenAPI 3.1 document, made from the same schemas by which requests are checked. */
export function openApiDocument() {
  const paths: Record<string, Record<string, object>> = {}
  for (const [operationId, operation] of Object.entries(operations)) {
    const path = (paths[operation.path] ??= {})
    path[operation.method] = described(operationId, operation)
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Wendrel',
      version: '1',
      description:
        'Everything that the interface does. Bytes are decimal text; sizes in intents are text with a unit, such as "4 GiB".',
    },
    servers: [{ url: '/api/v1' }],
    security: [{ bearer: [] }],
    components: {
      securitySchemes: { bearer: { type: 'http', scheme: 'bearer' } },
      schemas: {
        Refusal: refusalSchema,
        ...Object.fromEntries([...kindSchemas].map(([schema, name]) => [name, schema])),
      },
    },
    paths,
  }
}
