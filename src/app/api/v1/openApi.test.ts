import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import Ajv from 'ajv/dist/2020.js'
import { openApiDocument } from './openApiDocument'

const root = __dirname

/** Every method that a route file exports, as `get /path/{id}`, by the folders that Next routes by. */
function routes(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry => {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) return routes(path)
    if (entry.name !== 'route.ts') return []
    const methods = [...readFileSync(path, 'utf8').matchAll(/export const (GET|POST|PUT|PATCH|DELETE) /g)].map(match =>
      (match[1] ?? '').toLowerCase(),
    )
    return methods.map(method => `${method} /${relative(root, folder).replace(/\[(\w+)\]/g, '{$1}')}`)
  })
}

test('the document names every route, and no route that is not there', () => {
  const documented = Object.entries(openApiDocument().paths).flatMap(([path, methods]) =>
    Object.keys(methods).map(method => `${method} ${path}`),
  )
  expect(documented.sort()).toEqual(routes(root).sort())
})

test('every route answers under the operation that the document gives it', () => {
  const text = (path: string) => readFileSync(join(root, path.replace(/\{(\w+)\}/g, '[$1]'), 'route.ts'), 'utf8')
  for (const [path, methods] of Object.entries(openApiDocument().paths)) {
    for (const [method, operation] of Object.entries(methods)) {
      const { operationId } = operation as { operationId: string }
      expect(text(path)).toMatch(new RegExp(`${method.toUpperCase()} = answer\\(\\s*'${operationId}'`))
    }
  }
})

test('every schema in it compiles', () => {
  const ajv = new Ajv({ strict: false, formats: { bytes: true, uuid: true, uri: true, 'date-time': true } })
  const schemas = JSON.stringify(openApiDocument())
  expect(schemas.length).toBeGreaterThan(5000)
  for (const methods of Object.values(openApiDocument().paths)) {
    for (const operation of Object.values(methods) as {
      requestBody?: { content: Record<string, { schema: object }> }
    }[]) {
      const schema = operation.requestBody?.content['application/json']?.schema
      if (schema !== undefined) expect(() => ajv.compile(schema)).not.toThrow()
    }
  }
})
