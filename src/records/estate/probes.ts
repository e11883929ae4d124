import type { Probe } from '@/core/estate'
import { row, type Scope } from '../database'

type Kept = Omit<Probe, 'id' | 'at' | 'drives'> & {
  readonly drives: readonly { readonly words: string; readonly count: number; readonly bytes: string }[]
}

/** What a first look at a system found, while it is kept. */
export async function probeById(scope: Scope, id: string): Promise<Probe | undefined> {
  const kept = await row<{ readonly at: Date; readonly found: Kept }>(
    scope,
    'select at, found from probes where id = $1',
    [id],
  )
  return kept === undefined
    ? undefined
    : {
        ...kept.found,
        id,
        at: kept.at.toISOString(),
        drives: kept.found.drives.map(each => ({ ...each, bytes: BigInt(each.bytes) })),
      }
}
