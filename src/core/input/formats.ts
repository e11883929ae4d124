import { isUuid } from './storable'

/** What the formats in our JSON Schemas mean; the same wherever something from outside is checked. */
export const formats = {
  uuid: isUuid,
  bytes: (text: string) => /^[0-9]{1,25}$/.test(text),
  uri: (text: string) => URL.canParse(text),
  'date-time': (text: string) => /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(text) && !Number.isNaN(Date.parse(text)),
} as const
