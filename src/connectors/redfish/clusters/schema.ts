import { compile, head, reference, references, status, optionalText } from '../schema'

/** The union of nodes. Source: DMTF Aggregate. */
export const isAggregate = compile({
  type: 'object',
  required: ['@odata.id', 'Name', 'Elements'],
  properties: { ...head, Description: optionalText, Elements: references, Status: status },
} as const)

export const isAggregationService = compile({
  type: 'object',
  required: ['Aggregates'],
  properties: { Aggregates: reference },
} as const)
