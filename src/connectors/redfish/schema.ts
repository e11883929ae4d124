import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import type { FromSchema, JSONSchema } from 'json-schema-to-ts'
import { later } from '@/core/input'

/**
 * The parts of Redfish (DMTF DSP8010) and Swordfish (SNIA) resources that Wendrel reads. Nothing else is required of a system.
 * Byte counts above 2^53 − 1 have already lost bits as JSON numbers: they are refused, not rounded.
 */
const ajv = new Ajv({ allErrors: false })
type Shape<S> = S extends JSONSchema ? FromSchema<S> : never
export const compile = <const S extends object>(schema: S) =>
  later(() => ajv.compile(schema) as unknown as ValidateFunction<Shape<S>>)
export const text = { type: 'string', maxLength: 4096 } as const
export const bytes = { type: 'integer', minimum: 0, maximum: Number.MAX_SAFE_INTEGER } as const
export const id = { type: 'string', minLength: 1, maxLength: 2048 } as const
export const reference = { type: 'object', required: ['@odata.id'], properties: { '@odata.id': id } } as const
export const references = { type: 'array', items: reference } as const
export const status = {
  type: 'object',
  properties: { State: { type: ['string', 'null'] }, Health: { type: ['string', 'null'] } },
} as const
export const names = {
  type: 'array',
  items: {
    type: 'object',
    properties: { DurableName: { type: ['string', 'null'] }, DurableNameFormat: { type: ['string', 'null'] } },
  },
} as const
export const head = { '@odata.id': id, Id: text, Name: text } as const
export const nullableNumber = { type: ['number', 'null'] } as const
export const optionalText = { type: ['string', 'null'], maxLength: 4096 } as const

/** What a maker states of its own; what is in it is the maker's matter. */
export const ownParts = { type: 'object' } as const

export const isErrorBody = compile({
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      properties: {
        message: text,
        '@Message.ExtendedInfo': {
          type: 'array',
          items: { type: 'object', properties: { Message: text, Resolution: text } },
        },
      },
    },
  },
} as const)

export const isCollection = compile({
  type: 'object',
  required: ['Members'],
  properties: {
    Members: references,
    'Members@odata.nextLink': optionalText,
    'Members@odata.count': { type: ['integer', 'null'] },
  },
} as const)

export type Checked<F> = F extends (value: unknown) => value is infer T ? T : never
