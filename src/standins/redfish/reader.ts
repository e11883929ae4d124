import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import { Refused } from '../array'

/** Parts of bodies that the service accepts. */
export const text = { type: 'string', minLength: 1, maxLength: 255 } as const
export const longText = { type: 'string', maxLength: 500 } as const
export const reference = { type: 'object', required: ['@odata.id'], properties: { '@odata.id': text } } as const
export const references = { type: 'array', items: reference } as const

const ajv = new Ajv({ allErrors: true })
const messages: Readonly<Record<string, string>> = {
  required: 'PropertyMissing',
  additionalProperties: 'PropertyUnknown',
  type: 'PropertyValueTypeError',
  enum: 'PropertyValueNotInList',
}

/** Reads a body; anything else than its schema says is refused with the path of the fault. Source: DMTF Base message registry. */
export function reader<T>(schema: object): (body: unknown) => T {
  const isValid = later(() => ajv.compile<T>(schema))
  return body => {
    if (isValid(body)) return body
    const first = isValid.errors?.[0]
    const named = first?.params as { missingProperty?: string; additionalProperty?: string } | undefined
    const property = named?.missingProperty ?? named?.additionalProperty
    const at = `${first?.instancePath ?? ''}${property === undefined ? '' : `/${property}`}`
    throw new Refused(
      400,
      `Base.1.18.${messages[first?.keyword ?? ''] ?? 'PropertyValueIncorrect'}`,
      {
        what: 'The request was not carried out.',
        why: `${first?.instancePath || 'The body'} ${first?.message ?? 'is not understood'}.`,
        remedy: 'Correct the property and send it again.',
      },
      { arguments: [at], properties: at === '' ? [] : [`#${at}`] },
    )
  }
}
