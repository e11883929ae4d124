import { idSchema } from '@/core/estate'
import { metricNames, sampleFormats } from '@/core/metrics'
import type { Operation } from './Operation'
import { list, many, object, text, whole } from './shapes'

const days = { type: ['integer', 'null'], minimum: 0 }
const reaches = object({ p10: days, p50: days, p90: days })
const number = { type: 'number' }
/** Some hundred thousand samples. */
const importBytes = 16_000_000

/** What is measured, and what is likely to come of it. */
export const metricOperations = {
  listPoolForecasts: {
    method: 'get',
    path: '/pool-forecasts',
    summary: 'Pools by the day on which nine tenths of them are likely to be written, what is past it first',
    answers: many(
      object(
        {
          poolId: idSchema,
          poolName: text(),
          systemName: text(),
          /** Why there is no forecast; absent where there is one. */
          why: text(),
          /** The midnight from which days are counted (UTC). */
          from: text(),
          usedBytes: number,
          limitBytes: number,
          bytesPerDay: number,
          /** Days until the limit, and until all is written; null: not within three years. P90 is the early one. */
          daysToLimit: reaches,
          daysToFull: reaches,
        },
        ['why', 'from', 'bytesPerDay', 'daysToLimit', 'daysToFull'],
      ),
    ),
  },
  listSlowest: {
    method: 'get',
    path: '/slowest-volumes',
    summary: 'The slowest volumes of the last day, those that miss their promise of latency by most first',
    query: { limit: { type: 'integer', minimum: 1, maximum: 500 } },
    answers: object({
      items: list(
        object({
          id: idSchema,
          name: text(),
          poolId: idSchema,
          poolName: text(),
          className: { type: ['string', 'null'] },
          promisedSeconds: { type: ['number', 'null'] },
          p95Seconds: number,
          requestsPerSecond: number,
          bytesPerSecond: number,
        }),
      ),
      total: whole,
      /** How many of all answer slower than is promised. */
      missing: whole,
    }),
  },
  readSeries: {
    method: 'get',
    path: '/objects/{id}/series',
    summary: 'What was measured of a pool, a volume or a drive: at most 50,000 samples, the earliest first',
    query: {
      metric: { enum: metricNames },
      from: { type: 'string', format: 'date-time' },
      until: { type: 'string', format: 'date-time' },
    },
    requiredQuery: ['metric', 'from', 'until'],
    answers: object({
      samples: list(object({ at: text(), value: number })),
      /** How many there are between the two instants, also where not all of them are given. */
      total: whole,
    }),
  },
  bringInSamples: {
    method: 'post',
    path: '/metric-imports',
    summary: 'Bring in samples that were measured elsewhere: CSV or JSON lines of object, metric, at and value',
    body: object({ format: { enum: sampleFormats }, text: { type: 'string', maxLength: importBytes } }),
    bodyBytes: importBytes + 4096,
    answers: object({
      kept: whole,
      /** How many lines could not be kept, and of the first of them why. */
      refusedCount: whole,
      refused: list(object({ line: whole, why: text(500) })),
    }),
    status: 201,
  },
  exposeMetrics: {
    method: 'get',
    path: '/metrics',
    summary: 'What is measured now, as OpenMetrics text; with `volumes=true` of every volume as well',
    query: { volumes: { enum: ['true', 'false'] } },
  },
} as const satisfies Readonly<Record<string, Operation>>
