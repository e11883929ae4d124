import { compile, head, text, references, optionalText, ownParts } from '../schema'

/** Tasks. */
export const isTask = compile({
  type: 'object',
  required: ['@odata.id', 'TaskState'],
  properties: {
    ...head,
    TaskState: text,
    StartTime: optionalText,
    EndTime: optionalText,
    PercentComplete: { type: ['number', 'null'] },
    Payload: { type: 'object', properties: { JsonBody: optionalText } },
    Messages: { type: 'array', items: { type: 'object', properties: { Message: text } } },
    Oem: ownParts,
    Links: { type: 'object', properties: { CreatedResources: references } },
  },
} as const)
