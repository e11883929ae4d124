'use client'
import { provisionableBytes, type HostGroup, type Pool, type ServiceClass } from '@/core/estate'
import type { ProvisionVolumeIntent } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { formatBytes } from '@/core/units'
import { IntentForm } from './IntentForm'

interface ProvisionProps {
  readonly pools: readonly (Pool & { readonly systemName: string })[]
  readonly groups: readonly HostGroup[]
  readonly classes: readonly ServiceClass[]
  readonly kept?: ShownChange | undefined
  readonly poolId?: string | undefined
}

/** Drafting a volume: what is promised of it, for whom, how large, from which pool. Which pool, and why, is drawn on the sheet. */
export const ProvisionVolume = ({ pools, groups, classes, kept, poolId = '' }: ProvisionProps) => (
  <IntentForm<ProvisionVolumeIntent>
    kind="provision-volume"
    title="Provision a volume"
    begin={{ classId: '', poolId, isThin: true }}
    choices={{
      'host groups': [{ value: '', words: 'none yet' }, ...groups.map(({ id, name }) => ({ value: id, words: name }))],
      'service classes': [{ value: '', words: 'none' }, ...classes.map(({ id, name }) => ({ value: id, words: name }))],
      pools: [
        { value: '', words: 'left to the class' },
        ...pools.map(pool => ({ value: pool.id, words: poolWords(pool) })),
      ],
    }}
    kept={kept}
    isSketchBeside
  />
)

function promised(pool: Pool): string {
  const capacity = provisionableBytes(pool)
  return capacity === 0n ? 'nothing' : `${((Number(pool.provisionedBytes) / Number(capacity)) * 100).toFixed(0)}%`
}

const poolWords = (pool: ProvisionProps['pools'][number]) =>
  `${pool.name} on ${pool.systemName}: ${formatBytes(provisionableBytes(pool) - pool.writtenBytes)} left, ${promised(pool)} promised${pool.state === 'fine' ? '' : `, ${pool.state}`}`
