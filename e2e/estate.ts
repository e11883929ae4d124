import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** One running Wendrel with its fleet, as the test process is told of it. */
export interface Estate {
  readonly address: string
  /** Lets the first administrator in. */
  readonly code: string
  /** The array that is not registered yet. */
  readonly heron: string
  readonly godwit: string
  /** Its data folder. */
  readonly data: string
}

export const kept = 'WENDREL_ESTATES'

/** Where an array of the fleet answers. */
export function arrayAddress(name: string): string {
  const file = readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')
  const { arrays } = JSON.parse(file) as { readonly arrays: Readonly<Record<string, number>> }
  return `http://127.0.0.1:${arrays[name]}`
}

/** The estate of this test process: those that run at a time have one each. */
export function ownEstate(): Estate {
  const all = JSON.parse(process.env[kept] ?? '[]') as readonly Estate[]
  const own = all[Number(process.env['TEST_PARALLEL_INDEX'] ?? 0)]
  if (own === undefined) throw new Error('No estate was started for this process.')
  return own
}
