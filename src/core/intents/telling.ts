import { idOrBlankSchema, ruleSubjects, ways } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const name = { type: 'string', maxLength: 60 } as const

const defineRouteSchema = {
  type: 'object',
  required: ['routeId', 'name', 'way', 'address', 'sender', 'recipients', 'userName', 'secretId'],
  additionalProperties: false,
  properties: {
    routeId: idOrBlankSchema,
    name,
    way: { enum: [...ways] },
    address: { type: 'string', maxLength: 500 },
    sender: { type: 'string', maxLength: 320 },
    /** Addresses, a line each or with commas between. */
    recipients: { type: 'string', maxLength: 4000 },
    userName: { type: 'string', maxLength: 255 },
    /** Of what is kept: the key by which a webhook is signed, or the password of a mail server. */
    secretId: idOrBlankSchema,
  },
} as const
export type DefineRouteIntent = IntentOf<typeof defineRouteSchema>

export const defineRouteIntent = {
  kind: 'define-route',
  alters: 'routeId',
  start: { way: 'webhook' },
  title: 'Define a route',
  verb: 'Keep and try it',
  place: '/watch/routes',
  form: {
    lead: 'Where somebody is told. It is proven by a message that its receiver takes.',
    fields: [
      { field: 'name', label: 'Name', hint: 'As people say it: the night desk.', as: 'text' },
      {
        field: 'way',
        label: 'Way',
        as: 'side by side',
        options: [
          { value: 'webhook', words: 'webhook' },
          { value: 'mail', words: 'mail' },
          { value: 'syslog', words: 'syslog' },
        ],
      },
      {
        field: 'address',
        label: 'Address',
        hint: 'https://desk.example/told, smtp://mail.example:25, or udp://log.example:514 (tcp, tls).',
        as: 'identifier',
      },
      {
        field: 'sender',
        label: 'From',
        hint: 'An address that the mail server takes.',
        as: 'text',
        onlyWhile: { field: 'way', is: 'mail' },
      },
      {
        field: 'recipients',
        label: 'To',
        hint: 'Addresses, a line each.',
        as: 'lines',
        onlyWhile: { field: 'way', is: 'mail' },
      },
      {
        field: 'userName',
        label: 'Name at the mail server',
        hint: 'Empty where it asks for none.',
        as: 'text',
        onlyWhile: { field: 'way', is: 'mail' },
      },
      {
        field: 'secretId',
        label: 'Key or password',
        hint: 'Of a webhook: the key that signs each message. Of mail: the password. Kept sealed.',
        as: 'secret',
        purpose: 'route',
      },
    ],
  },
  intentSchema: defineRouteSchema,
} as const satisfies IntentKind

const routeSchemaOf = {
  type: 'object',
  required: ['routeId'],
  additionalProperties: false,
  properties: { routeId: idOrBlankSchema },
} as const
export type RouteIntent = IntentOf<typeof routeSchemaOf>

export const testRouteIntent = {
  kind: 'test-route',
  title: 'Test a route',
  verb: 'Send a test',
  place: '/watch/routes?sel={routeId}',
  offer: { words: 'Test now', when: {} },
  form: { lead: 'A message that says that it is a test. What was sent and what was answered is kept.', fields: [] },
  intentSchema: routeSchemaOf,
} as const satisfies IntentKind

export const removeRouteIntent = {
  kind: 'remove-route',
  title: 'Remove a route',
  verb: 'Remove it',
  place: '/watch/routes?sel={routeId}',
  offer: { words: 'Remove', when: {} },
  form: { lead: 'Rules that tell there tell there no longer.', fields: [] },
  // Of its own: what is compiled for the browser is told apart by the schema itself.
  intentSchema: { ...routeSchemaOf },
} as const satisfies IntentKind

const value = { type: ['number', 'null'], minimum: 0, maximum: 1_000_000 } as const
const hour = { type: ['number', 'null'], minimum: 0, maximum: 24 } as const

const defineRuleSchema = {
  type: 'object',
  required: [
    'ruleId',
    'name',
    'subject',
    'gravity',
    'beginsAt',
    'endsAt',
    'minutes',
    'quietFrom',
    'quietTo',
    'quietDays',
    'timeZone',
    'isUrgentAlways',
    'roundAt',
    'routeIds',
  ],
  additionalProperties: false,
  properties: {
    ruleId: idOrBlankSchema,
    name,
    subject: { enum: [...ruleSubjects] },
    gravity: { enum: ['now', 'soon'] },
    beginsAt: value,
    endsAt: value,
    minutes: { type: ['integer', 'null'], minimum: 0, maximum: 10_080 },
    quietFrom: hour,
    quietTo: hour,
    quietDays: { type: 'string', maxLength: 400 },
    timeZone: { type: 'string', maxLength: 60 },
    isUrgentAlways: { type: 'boolean' },
    roundAt: { type: ['number', 'null'], minimum: 0, maximum: 23 },
    routeIds: { type: 'array', maxItems: 32, uniqueItems: true, items: { type: 'string', maxLength: 36 } },
  },
} as const
export type DefineRuleIntent = IntentOf<typeof defineRuleSchema>

export const defineRuleIntent = {
  kind: 'define-rule',
  alters: 'ruleId',
  start: { subject: 'findings', gravity: 'soon', timeZone: 'UTC', isUrgentAlways: true },
  title: 'Define a rule',
  verb: 'Keep it',
  place: '/watch/rules',
  form: {
    lead: 'Of one cause there is one message when it begins and one when it is over.',
    fields: [
      { field: 'name', label: 'Name', hint: 'What it is for: pools that fill.', as: 'text' },
      {
        field: 'subject',
        label: 'Of',
        as: 'one of',
        options: [
          { value: 'findings', words: 'findings' },
          { value: 'fill', words: 'fill of pools' },
          { value: 'days to limit', words: 'days to their limit' },
          { value: 'latency', words: 'latency of volumes' },
          { value: 'round', words: 'the daily round' },
          { value: 'report', words: 'the report of each month' },
        ],
      },
      {
        field: 'gravity',
        label: 'As grave as',
        as: 'side by side',
        options: [
          { value: 'now', words: 'now' },
          { value: 'soon', words: 'soon, and now' },
        ],
        onlyWhile: { field: 'subject', is: 'findings' },
      },
      {
        field: 'beginsAt',
        label: 'Begins at',
        hint: '% of a pool, days until its limit, or ms in 95 of 100 minutes. Not for findings and rounds.',
        as: 'number or none',
      },
      { field: 'endsAt', label: 'Ends at', hint: 'Apart from where it begins.', as: 'number or none', isBeside: true },
      { field: 'minutes', label: 'After it has stood for, minutes', as: 'number or none' },
      {
        field: 'roundAt',
        label: 'Of rounds and reports: at the hour of',
        as: 'number or none',
        isBeside: true,
      },
      { field: 'quietFrom', label: 'Quiet from the hour of', as: 'number or none' },
      { field: 'quietTo', label: 'to', as: 'number or none', isBeside: true },
      {
        field: 'quietDays',
        label: 'Quiet days',
        hint: 'A rule of RFC 5545: FREQ=WEEKLY;BYDAY=SA,SU. What stands is told when they are over.',
        as: 'identifier',
      },
      { field: 'timeZone', label: 'In the time zone', hint: 'Such as Europe/Lisbon.', as: 'text' },
      { field: 'isUrgentAlways', label: 'What calls for work now is told in quiet times too', as: 'tick' },
      { field: 'routeIds', label: 'Told to', as: 'some of', choices: 'routes' },
    ],
  },
  intentSchema: defineRuleSchema,
} as const satisfies IntentKind

const ruleSchemaOf = {
  type: 'object',
  required: ['ruleId'],
  additionalProperties: false,
  properties: { ruleId: idOrBlankSchema },
} as const
export type RuleIntent = IntentOf<typeof ruleSchemaOf>

export const removeRuleIntent = {
  kind: 'remove-rule',
  title: 'Remove a rule',
  verb: 'Remove it',
  place: '/watch/rules?sel={ruleId}',
  offer: { words: 'Remove', when: {} },
  form: { lead: 'Nobody is told by it any more. What it has told stays on record.', fields: [] },
  intentSchema: ruleSchemaOf,
} as const satisfies IntentKind

/** Who is told of what. */
export const tellingIntents: readonly IntentKind[] = [
  defineRouteIntent,
  testRouteIntent,
  removeRouteIntent,
  defineRuleIntent,
  removeRuleIntent,
]
