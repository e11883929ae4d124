import type { ValidateFunction } from 'ajv'
import { isStorable } from '@/core/input'
import { BadRequest } from './errors'

type Schema = Readonly<Record<string, object>>

const isInteger = (schema: object | undefined) => (schema as { type?: unknown } | undefined)?.type === 'integer'

/**
 * The parameters of a query, each as its document says; what the document does not name is refused, not passed over.
 * @throws {BadRequest}
 */
export function readQuery(
  query: URLSearchParams,
  schema: Schema,
  isQuery: ValidateFunction,
): Readonly<Record<string, string | number>> {
  // Without a prototype: `constructor` and `__proto__` are parameters like any other.
  const read = Object.create(null) as Record<string, string | number>
  for (const [name, text] of query) {
    if (name in read) throw new BadRequest(`The parameter ${quoted(name)} is given twice.`)
    if (!isStorable(text) || !isStorable(name)) throw new BadRequest('A parameter holds a NUL or half a character.')
    read[name] = isInteger(schema[name]) && /^-?[0-9]{1,15}$/.test(text) ? Number(text) : text
  }
  if (isQuery(read)) return read
  const [first] = isQuery.errors ?? []
  const unknown: unknown = first?.params['additionalProperty']
  throw new BadRequest(
    typeof unknown === 'string'
      ? `There is no parameter ${quoted(unknown)} here.`
      : `The parameter ${first?.instancePath.slice(1) ?? ''} ${first?.message ?? 'is wrong'}${allowed(first?.params)}.`,
  )
}

const quoted = (name: string) => JSON.stringify(name.slice(0, 60))
const allowed = (params: Record<string, unknown> | undefined) =>
  Array.isArray(params?.['allowedValues']) ? `: ${params['allowedValues'].join(', ')}` : ''
