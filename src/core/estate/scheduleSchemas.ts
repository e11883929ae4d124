const retentionSchema = {
  type: 'object',
  additionalProperties: false,
  properties: Object.fromEntries(
    (['keepLast', 'hourly', 'daily', 'weekly', 'monthly', 'yearly'] as const).map(rule => [
      rule,
      { type: 'integer', minimum: 0, maximum: 1000 },
    ]),
  ) as Readonly<
    Record<
      'keepLast' | 'hourly' | 'daily' | 'weekly' | 'monthly' | 'yearly',
      { readonly type: 'integer'; readonly minimum: 0; readonly maximum: 1000 }
    >
  >,
} as const

/** By what snapshots are taken of volumes, and how long they are kept. */
export const scheduleProperties = {
  /** RRULE of RFC 5545 by which snapshots are taken. */
  snapshotRule: { type: ['string', 'null'], maxLength: 2000 },
  timeZone: { type: 'string', maxLength: 60 },
  retention: retentionSchema,
  /** Local hours in which no snapshot is taken by the rule; over midnight where the first is the later. */
  quietHours: {
    oneOf: [
      { type: 'null' },
      {
        type: 'object',
        required: ['from', 'to'],
        additionalProperties: false,
        properties: {
          from: { type: 'number', minimum: 0, maximum: 24 },
          to: { type: 'number', minimum: 0, maximum: 24 },
        },
      },
    ],
  },
} as const

/** A schedule that something has of its own; null where it goes by its class. */
export const ownScheduleSchema = {
  oneOf: [
    { type: 'null' },
    {
      type: 'object',
      required: ['snapshotRule', 'timeZone', 'retention', 'quietHours'],
      additionalProperties: false,
      properties: scheduleProperties,
    },
  ],
} as const
