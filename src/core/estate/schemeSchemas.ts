import type { FromSchema } from 'json-schema-to-ts'

export const raidSchemeSchema = {
  oneOf: [
    {
      type: 'object',
      required: ['kind', 'parityDrives'],
      additionalProperties: false,
      properties: { kind: { const: 'parity' }, parityDrives: { type: 'integer', minimum: 0, maximum: 3 } },
    },
    {
      type: 'object',
      required: ['kind', 'copies'],
      additionalProperties: false,
      properties: { kind: { const: 'mirror' }, copies: { type: 'integer', minimum: 2, maximum: 4 } },
    },
  ],
} as const

/** How a cluster protects its data: copies or an erasure code, each piece in a failure domain of its own. */
export const spreadSchemeSchema = {
  oneOf: [
    {
      type: 'object',
      required: ['kind', 'copies'],
      additionalProperties: false,
      properties: { kind: { const: 'copies' }, copies: { type: 'integer', minimum: 2, maximum: 4 } },
    },
    {
      type: 'object',
      required: ['kind', 'dataPieces', 'parityPieces'],
      additionalProperties: false,
      properties: {
        kind: { const: 'erasure' },
        dataPieces: { type: 'integer', minimum: 2, maximum: 16 },
        parityPieces: { type: 'integer', minimum: 1, maximum: 4 },
      },
    },
  ],
} as const

export const failureDomainSchema = { enum: ['node', 'enclosure', 'rack'] } as const

/** A layout that the system states in words which nobody here knows: nothing is claimed of what it survives. */
const unknownSchemeSchema = {
  type: 'object',
  required: ['kind', 'stated'],
  additionalProperties: false,
  properties: { kind: { const: 'unknown' }, stated: { type: 'string', maxLength: 200 } },
} as const

export const poolSchemeSchema = {
  oneOf: [...raidSchemeSchema.oneOf, ...spreadSchemeSchema.oneOf, unknownSchemeSchema],
} as const

export type RaidSchemeText = FromSchema<typeof raidSchemeSchema>
export type PoolScheme = FromSchema<typeof poolSchemeSchema>
export type SpreadSchemeText = FromSchema<typeof spreadSchemeSchema>
export type FailureDomainKind = FromSchema<typeof failureDomainSchema>
