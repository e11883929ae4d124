import type { Asked } from '@/app/server/answer'
import { BadRequest } from '@/app/server/errors'
import { provisionableBytes } from '@/core/estate'
import { openMetrics, openMetricsType, readSampleLines, type ExposedFamily, type MetricName } from '@/core/metrics'
import { estateNow } from '@/records/inventory'
import { bringIn, samplesBetween } from '@/records/metrics'
import { objects } from '@/records/objects'
import { poolsByDate, pools, slowest, systems } from '@/records/queries'

const mostSamples = 50_000
const mostRefusals = 50

/** What is measured, and what is likely to come of it. */
export const metricHandlers = {
  listPoolForecasts: async ({ scope }: Asked) => ({
    items: (await poolsByDate(scope)).map(({ pool, systemName, outlook }) => ({
      poolId: pool.id,
      poolName: pool.name,
      systemName,
      usedBytes: outlook?.usedBytes ?? Number(pool.writtenBytes),
      limitBytes: outlook?.limitBytes ?? Number(provisionableBytes(pool)),
      ...(outlook === undefined
        ? { why: 'nothing measured yet' }
        : 'why' in outlook
          ? { why: outlook.why }
          : {
              from: new Date(outlook.today).toISOString(),
              bytesPerDay: outlook.slopeBytesPerDay,
              daysToLimit: outlook.reachesLimit,
              daysToFull: outlook.reachesFull,
            }),
    })),
  }),
  async listSlowest({ scope, query }: Asked) {
    const { lines, total, missing } = await slowest(scope, Number(query['limit'] ?? 20))
    return { items: lines, total, missing }
  },
  async readSeries({ scope, id, query }: Asked) {
    const [from, until] = [new Date(String(query['from'])), new Date(String(query['until']))]
    if (!(from < until)) throw new BadRequest('from must be before until.')
    const { times, values } = await samplesBetween(scope, String(query['metric']) as MetricName, id, from, until)
    const samples = Array.from({ length: Math.min(times.length, mostSamples) }, (_, index) => ({
      at: new Date(times[index] ?? 0).toISOString(),
      value: values[index] ?? 0,
    }))
    return { samples, total: times.length }
  },
  async bringInSamples({ body, scope, noted }: Asked) {
    const { samples, refused } = readSampleLines(String(body['text']), body['format'] === 'CSV' ? 'CSV' : 'JSON lines')
    const found = await bringIn(scope.database, samples, await estateNow(scope))
    const all = [...refused, ...found.refused].sort((a, b) => a.line - b.line)
    const detail = { kept: found.kept, refused: all.length }
    await noted({ action: 'metrics.brought-in', subject: 'measurements', detail }, async () => undefined)
    return { kept: found.kept, refusedCount: all.length, refused: all.slice(0, mostRefusals) }
  },
  async exposeMetrics({ scope, query }: Asked) {
    const allPools = await pools(scope)
    const names = new Map((await systems(scope)).map(({ id, name }) => [id, name]))
    const ofPools = (
      what: string,
      help: string,
      value: (pool: (typeof allPools)[number]) => bigint,
    ): ExposedFamily => ({
      name: `wendrel_pool_${what}_bytes`,
      unit: 'bytes',
      help,
      values: allPools.map(pool => ({
        labels: { id: pool.id, pool: pool.name, system: names.get(pool.systemId) ?? '' },
        value: Number(value(pool)),
      })),
    })
    const volumes = query['volumes'] === 'true' ? await objects(scope, 'volumes') : []
    const text = openMetrics([
      ofPools('provisionable', 'What volumes can have of the pool.', provisionableBytes),
      ofPools('written', 'What is written of it.', pool => pool.writtenBytes),
      ofPools('held', 'What snapshots hold besides their volumes.', pool => pool.snapshotBytes),
      {
        name: 'wendrel_volume_written_bytes',
        unit: 'bytes',
        help: 'What is written of the volume.',
        values: volumes.map(each => ({
          labels: { id: each.id, volume: each.name, system: names.get(each.systemId) ?? '' },
          value: Number(each.writtenBytes),
        })),
      },
    ])
    return new Response(text, { headers: { 'Content-Type': openMetricsType } })
  },
}
