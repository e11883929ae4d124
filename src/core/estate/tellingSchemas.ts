import type { FromSchema } from 'json-schema-to-ts'
import { idSchema, nameSchema, nullableText, object, revision } from './schemas'

/** How a message leaves: as a signed request (RFC 9421), by SMTP (RFC 5321) or to a syslog server (RFC 5424). */
export const ways = ['webhook', 'mail', 'syslog'] as const
export type Way = (typeof ways)[number]

/** What a rule looks at. */
export const ruleSubjects = ['findings', 'fill', 'days to limit', 'latency', 'round', 'report'] as const
export type RuleSubject = (typeof ruleSubjects)[number]

/** Where somebody is told. */
export const routeSchema = object({
  id: idSchema,
  name: nameSchema,
  way: { enum: [...ways] },
  /** `https://…` for a webhook, `smtp://host:25` or `smtps://…` for mail, `udp://`, `tcp://` or `tls://host:514` for syslog. */
  address: { type: 'string', maxLength: 500 },
  /** Of mail: who it is from. */
  sender: nullableText,
  /** Of mail: whom it is to. */
  recipients: { type: 'array', items: { type: 'string', maxLength: 320 } },
  /** Of mail: the name under which to sign in; its password is kept sealed beside it. */
  userName: nullableText,
  revision,
})

/** When somebody is told, of what, and where. */
export const ruleSchema = object({
  id: idSchema,
  name: nameSchema,
  subject: { enum: [...ruleSubjects] },
  /** Of findings: those as grave as this, and graver. */
  gravity: { enum: ['now', 'soon'] },
  /** Of measured values: where it begins (percent of a pool, days, milliseconds). */
  beginsAt: { type: ['number', 'null'] },
  /** Where it ends again: apart from where it begins, so that what sways about one value is told once. */
  endsAt: { type: ['number', 'null'] },
  /** It has stood for so long before it is told. */
  minutes: { type: 'integer', minimum: 0, maximum: 10_080 },
  /** Local hours in which nothing is told; over midnight where the first is the later. */
  quietFrom: { type: ['number', 'null'], minimum: 0, maximum: 24 },
  quietTo: { type: ['number', 'null'], minimum: 0, maximum: 24 },
  /** Days on which nothing is told, by a rule of RFC 5545: `FREQ=WEEKLY;BYDAY=SA,SU`. */
  quietDays: nullableText,
  timeZone: { type: 'string', maxLength: 60 },
  /** What stands now is told in quiet hours too. */
  isUrgentAlways: { type: 'boolean' },
  /** Of the daily round and of the report of each month: the local hour. */
  roundAt: { type: ['number', 'null'], minimum: 0, maximum: 23 },
  routeIds: { type: 'array', items: { type: 'string', maxLength: 36 } },
  revision,
})

export type Route = Readonly<FromSchema<typeof routeSchema>>
export type Rule = Readonly<FromSchema<typeof ruleSchema>>
