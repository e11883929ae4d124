import { promisesOf, type PromiseKept } from '@/core/classes'
import { byId, type Estate, type ServiceClass, type Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countAtStart } from '@/core/units'
import { warn } from './checks'

/** Whether a promise would not be kept. Snapshots are left out: the schedule has not begun for what a draft puts under a class. */
const fails = ({ promise, state }: PromiseKept) => promise !== 'snapshots' && state === 'broken'

const shown = 3

/** Says which volumes would break a promise of a class, each with the measurement behind it. */
export function brokenPromises(
  estate: Estate,
  volumes: readonly Volume[],
  serviceClass: ServiceClass,
  now: Date,
): PlanCheck[] {
  const broken = volumes.flatMap(volume => {
    const pool = byId(estate.pools, volume.poolId)
    const lines = promisesOf(volume, { serviceClass, pool, snapshots: [], now }).filter(fails)
    return lines.map(line => `${volume.name}: ${line.promised}, but ${line.measured}`)
  })
  if (volumes.length === 0) return []
  return [
    warn(
      'promises',
      broken.length === 0,
      broken.length === 0
        ? `${countAtStart(volumes.length, 'volume keeps', 'volumes keep')} all that can be measured now.`
        : `${broken.slice(0, shown).join('; ')}${broken.length > shown ? `; and ${broken.length - shown} more` : ''}.`,
      { remedy: 'Move them to a pool that keeps it, or promise less.' },
    ),
  ]
}
