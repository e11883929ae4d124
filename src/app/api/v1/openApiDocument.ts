import { operations } from './contract'

const errorBody = {
  type: 'object',
  required: ['code', 'what', 'why', 'remedy'],
  properties: {
    code: { type: 'string' },
    what: { type: 'string' },
    why: { type: 'string' },
    remedy: { type: 'string' },
  },
}

/** The OpenAPI 3.1 document, made from the same schemas by which requests are checked. */
export function openApiDocument() {
  const paths: Record<string, Record<string, object>> = {}
  for (const [operationId, operation] of Object.entries(operations)) {
    const parameters = [
      ...(operation.path.includes('{id}')
        ? [{ name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } }]
        : []),
      ...Object.entries(operation.query ?? {}).map(([name, schema]) => ({
        name,
        in: 'query',
        required: false,
        schema,
      })),
    ]
    const content = operation.answers === undefined ? undefined : { 'application/json': { schema: operation.answers } }
    const path = (paths[operation.path] ??= {})
    path[operation.method] = {
      operationId,
      summary: operation.summary,
      ...(operation.isOpen === true ? { security: [] } : {}),
      ...(parameters.length === 0 ? {} : { parameters }),
      ...(operation.body === undefined
        ? {}
        : { requestBody: { required: true, content: { 'application/json': { schema: operation.body } } } }),
      responses: {
        [String(operation.status ?? 200)]: { description: 'Done', ...(content === undefined ? {} : { content }) },
        default: {
          description: 'Refused, with the reason and the way out',
          content: { 'application/json': { schema: errorBody } },
        },
      },
    }
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
    components: { securitySchemes: { bearer: { type: 'http', scheme: 'bearer' } } },
    paths,
  }
}
