import Ajv from 'ajv/dist/2020.js'
import { formats } from '@/core/input'
import { operations } from './contract'
import { openApiDocument } from './openApiDocument'

const document = openApiDocument()
const inDocument = Object.entries(document.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({
    at: `${method} ${path}`,
    operation: operation as {
      operationId: string
      responses: Record<string, object>
      parameters?: { name: string; in: string }[]
      requestBody?: { content: Record<string, { schema: object }> }
    },
  })),
)

test('the document names every operation once, and every one has a handler', () => {
  // The handlers are typed by the contract; what they import cannot be loaded outside a request.
  const { handlers } = jest.requireActual<{ handlers: object }>('./handlers')
  expect(inDocument.map(({ operation }) => operation.operationId).sort()).toEqual(Object.keys(handlers).sort())
  expect(new Set(inDocument.map(({ at }) => at)).size).toBe(Object.keys(operations).length)
})

test('every schema in it compiles', () => {
  const ajv = new Ajv({ strict: false, formats })
  for (const { operation } of inDocument) {
    const schema = operation.requestBody?.content['application/json']?.schema
    if (schema !== undefined) expect(() => ajv.compile(schema)).not.toThrow()
  }
})

test('every path parameter is described, and every refusal names the one shape that all have', () => {
  for (const { at, operation } of inDocument) {
    const inPath = (operation.parameters ?? []).filter(each => each.in === 'path').map(each => each.name)
    expect(inPath).toEqual([...at.matchAll(/\{(\w+)\}/g)].map(match => match[1]))
    for (const [status, response] of Object.entries(operation.responses))
      if (status === 'default' || Number(status) >= 400)
        expect(JSON.stringify(response)).toContain('#/components/schemas/Refusal')
  }
})
