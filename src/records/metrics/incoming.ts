import type { Sequelize } from 'sequelize'
import type { Sample } from '@/core/metrics'
import { copyInto } from '../copyInto'
import { inTransaction, row, type Scope } from '../database'

/** A sample and the series to which it belongs. */
export interface SeriesSample extends Sample {
  readonly seriesId: number
}

/** The table into which samples go now; the other one is being packed, or empty. */
export const incomingTables = ['metric_incoming_0', 'metric_incoming_1'] as const

/** The table that takes samples until this transaction ends: it is not turned meanwhile. */
export async function openTable(scope: Required<Scope>): Promise<string> {
  const found = await row<{ readonly generation: 0 | 1 }>(scope, 'select generation from metric_state for share')
  return incomingTables[found?.generation ?? 0]
}

const linesAtOnce = 2000

/** Writes samples as they come, in one transaction: all of them are kept, or none. */
export async function writeSamples(database: Sequelize, samples: readonly SeriesSample[]): Promise<void> {
  if (samples.length === 0) return
  await inTransaction(database, async scope => {
    const table = await openTable(scope)
    await copyInto(scope, `${table} (series_id, at, value)`, lines(samples))
  })
}

function* lines(samples: readonly SeriesSample[]): Generator<string> {
  let at = Number.NaN
  let instant = ''
  for (let first = 0; first < samples.length; first += linesAtOnce) {
    let text = ''
    for (const sample of samples.slice(first, first + linesAtOnce)) {
      // Samples come in runs of one instant: writing a time costs more than all else.
      if (sample.at !== at) {
        at = sample.at
        instant = new Date(at).toISOString()
      }
      text += `${sample.seriesId}\t${instant}\t${sample.value}\n`
    }
    yield text
  }
}

/** How much has come and is not packed yet (bytes). */
export async function incomingBytes(scope: Scope): Promise<number> {
  const sizes = incomingTables.map(table => `pg_relation_size('${table}')`).join(' + ')
  return Number((await row<{ readonly bytes: string }>(scope, `select ${sizes} as bytes`))?.bytes ?? 0)
}
