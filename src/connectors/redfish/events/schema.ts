import { compile, id, optionalText } from '../schema'

/** The event service, and what its stream sends. */
export const isEventService = compile({
  type: 'object',
  properties: { ServerSentEventUri: optionalText },
} as const)

export const isEventRecord = compile({
  type: 'object',
  properties: {
    Events: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        properties: { OriginOfCondition: { type: 'object', properties: { '@odata.id': id } } },
      },
    },
  },
} as const)
