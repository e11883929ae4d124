import { compile } from '../schema'
import type { Maker } from './Maker'

const rate = { type: ['integer', 'null'], minimum: 1, maximum: Number.MAX_SAFE_INTEGER } as const
const ceiling = {
  type: 'object',
  required: ['RequestsPerSecond', 'BytesPerSecond'],
  properties: { RequestsPerSecond: rate, BytesPerSecond: rate },
} as const
/** Of volumes: what they may be asked for a second. */
export const ceilingProperties = { Ceiling: ceiling } as const
const isCeilingPart = compile({ type: 'object', required: ['Ceiling'], properties: ceilingProperties } as const)

/** Limits of volumes, as two makers state and take them. */
export const ceilings = {
  volumeLimits: own =>
    isCeilingPart(own)
      ? { requestsPerSecond: own.Ceiling.RequestsPerSecond, bytesPerSecond: own.Ceiling.BytesPerSecond }
      : undefined,
  volumeLimitsPart: ({ requestsPerSecond, bytesPerSecond }) => ({
    Ceiling: { RequestsPerSecond: requestsPerSecond, BytesPerSecond: bytesPerSecond },
  }),
} as const satisfies Partial<Maker>
