import { existsSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeSync, closeSync } from 'node:fs'
import { flushed } from '../fleet'
import { join } from 'node:path'
import { stripeSetCount } from '@/core/clusters'

/** Which drives hold the pieces of each stripe set, by piece index; null where a piece is lost. */
export type StripeTable = (string | null)[][]

/** The tables of a row's pools, a file each, written whole and then renamed: a killed process finds the old or the new one. */
export class StripeTables {
  readonly #tables = new Map<string, StripeTable>()

  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true })
  }

  of(poolId: string): StripeTable {
    const known = this.#tables.get(poolId)
    if (known !== undefined) return known
    const path = join(this.folder, `${poolId}.json`)
    const table = existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as StripeTable) : []
    this.#tables.set(poolId, table)
    return table
  }

  keep(poolId: string, table: StripeTable): void {
    this.#tables.set(poolId, table)
    const next = join(this.folder, `${poolId}.next`)
    const file = openSync(next, 'w')
    writeSync(file, JSON.stringify(table))
    flushed(file)
    closeSync(file)
    renameSync(next, join(this.folder, `${poolId}.json`))
  }

  forget(poolId: string): void {
    this.#tables.delete(poolId)
    rmSync(join(this.folder, `${poolId}.json`), { force: true })
  }
}

/** The stripe set of an extent of a volume: spread evenly, and always the same. */
export function stripeSetOf(volumeId: string, extent: bigint): number {
  let hash = 0x811c9dc5
  for (const character of `${volumeId}/${extent}`) hash = Math.imul(hash ^ character.charCodeAt(0), 0x01000193)
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d)
  return ((hash ^ (hash >>> 12)) >>> 0) % stripeSetCount
}
