import { byId, nameCheck, type Estate, type HostGroup, type Pool } from '@/core/estate'
import type { ProvisionVolumeIntent as Intent } from '@/core/intents'
import type { PlanCheck } from '@/core/plan'
import { absent, answers, must, warn } from '../../parts/checks'
import { applicationOf, keptCheck } from '../../parts/keptFor'
import { mappedCheck, writersCheck } from '../../parts/mapping'

/** What has to be of the name, the pool and whoever sees it. */
export function checksOf(
  estate: Estate,
  intent: Intent,
  pool: Pool | undefined,
  group: HostGroup | undefined,
  initiators: readonly string[],
): PlanCheck[] {
  const system = byId(estate.systems, pool?.systemId)
  const namesake = estate.volumes.find(volume => volume.name === intent.name)
  return [
    nameCheck(intent.name, 'the volume'),
    absent(
      'name-free',
      namesake,
      'The name is free.',
      namesake =>
        `A volume of that name exists on ${byId(estate.systems, namesake.systemId)?.name ?? 'another system'}${namesake.state === 'holding' ? ', in holding' : ''}.`,
      { field: 'name' },
    ),
    ...poolChecks(
      pool,
      intent.poolId === '' && intent.classId !== undefined && intent.classId !== ''
        ? 'No pool keeps what the class promises: the sheet says why of each.'
        : 'Choose the pool that it comes from, or a class that finds it.',
    ),
    ...(pool === undefined ? [] : keptCheck(pool, applicationOf(intent.application))),
    ...(system === undefined ? [] : [answers(system)]),
    mappedCheck(group, initiators, 'No host group: nobody will see the volume until it is mapped.'),
    ...writersCheck(estate, group, 'it'),
  ]
}

function poolChecks(pool: Pool | undefined, why: string): PlanCheck[] {
  return [
    pool === undefined
      ? must('pool', false, why, { field: 'poolId' })
      : must(
          'pool-ready',
          pool.state === 'fine' || pool.state === 'degraded',
          pool.state === 'starting'
            ? `${pool.name} is still being initialised.`
            : pool.state === 'failed'
              ? `${pool.name} has failed.`
              : `${pool.name} is ready.`,
          { field: 'poolId', remedy: 'Wait for it, or choose another pool.' },
        ),
    ...(pool?.state === 'degraded'
      ? [warn('pool-whole', false, `${pool.name} has lost a drive and is not whole.`, { field: 'poolId' })]
      : []),
  ]
}
