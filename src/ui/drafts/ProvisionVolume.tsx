'use client'
import { provisionableBytes, type HostGroup, type Pool } from '@/core/estate'
import type { ProvisionVolumeIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { formatBytes } from '@/core/units'
import { IntentForm } from './IntentForm'

interface ProvisionProps {
  readonly pools: readonly (Pool & { readonly systemName: string })[]
  readonly groups: readonly HostGroup[]
  readonly kept?: ChangeRecord | undefined
  readonly poolId?: string | undefined
}

/** Drafting a volume: for whom, how large, from which pool. */
export const ProvisionVolume = ({ pools, groups, kept, poolId = '' }: ProvisionProps) => (
  <IntentForm<ProvisionVolumeIntent>
    kind="provision-volume"
    title="Provision a volume"
    begin={{ poolId, isThin: true }}
    choices={{
      'host groups': [{ value: '', words: 'none yet' }, ...groups.map(({ id, name }) => ({ value: id, words: name }))],
      pools: pools.map(pool => ({ value: pool.id, words: poolWords(pool) })),
    }}
    kept={kept}
  />
)

function promised(pool: Pool): string {
  const capacity = provisionableBytes(pool)
  return capacity === 0n ? 'nothing' : `${((Number(pool.provisionedBytes) / Number(capacity)) * 100).toFixed(0)}%`
}

const poolWords = (pool: ProvisionProps['pools'][number]) =>
  `${pool.name} on ${pool.systemName}: ${formatBytes(provisionableBytes(pool) - pool.writtenBytes)} left, ${promised(pool)} promised${pool.state === 'fine' ? '' : `, ${pool.state}`}`
