'use client'
import { provisionableBytes, type HostGroup, type Pool } from '@/core/estate'
import type { ProvisionVolumeIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { formatBytes, parseBytes } from '@/core/units'
import { Choice } from '../parts/Choice'
import { TextField } from '../parts/TextField'
import { NameField } from '../parts/NameField'
import { DraftFrame } from './DraftFrame'
import { useDraft } from './useDraft'
import { SelectField } from '../parts/Select'

interface ProvisionProps {
  readonly pools: readonly (Pool & { readonly systemName: string })[]
  readonly groups: readonly HostGroup[]
  readonly kept?: ChangeRecord | undefined
  readonly poolId?: string | undefined
}

/** The size again in the other family of units, so that nobody has to guess. */
export function echo(size: string): string | undefined {
  const parsed = parseBytes(size)
  return 'bytes' in parsed ? `${formatBytes(parsed.bytes)} = ${formatBytes(parsed.bytes, 'decimal')}` : undefined
}

/** Drafting a volume: for whom, how large, from which pool. */
export function ProvisionVolume({ pools, groups, kept, poolId }: ProvisionProps) {
  const draft = useDraft<ProvisionVolumeIntent>(
    'provision-volume',
    { name: '', purpose: '', size: '', poolId: poolId ?? '', isThin: true, hostGroupId: '' },
    kept,
  )
  const { intent, set, errorOf } = draft
  const suggestion = draft.plan?.suggestions?.['name'] ?? ''
  return (
    <DraftFrame title="Provision a volume" draft={draft}>
      <div className="grid grid-cols-2 gap-[10px]">
        <SelectField
          label="Host group"
          hint="Who shall see it; none maps it to nobody."
          error={errorOf('hostGroupId')}
          value={intent.hostGroupId}
          options={[{ value: '', words: 'none yet' }, ...groups.map(({ id, name }) => ({ value: id, words: name }))]}
          onChange={hostGroupId => set({ hostGroupId })}
        />
        <TextField
          label="Purpose"
          hint="A word for the name, such as data or log."
          value={intent.purpose}
          maxLength={60}
          onChange={value => set({ purpose: value })}
        />
      </div>
      <NameField
        hint="By the naming pattern of the estate; any other name may be given."
        value={intent.name}
        suggestion={suggestion}
        error={errorOf('name')}
        onChange={name => set({ name })}
      />
      <TextField
        label="Size"
        hint={echo(intent.size) ?? 'With its unit: 500 GiB, 2 TB.'}
        error={errorOf('size')}
        value={intent.size}
        maxLength={80}
        isMono
        onChange={value => set({ size: value })}
      />
      <SelectField
        label="Pool"
        hint="What is left to write, and what has been promised of its capacity."
        error={errorOf('poolId')}
        value={intent.poolId}
        options={pools.map(pool => ({ value: pool.id, words: poolWords(pool) }))}
        onChange={poolId => set({ poolId })}
      />
      <Choice
        label="Space"
        value={intent.isThin ? 'thin' : 'thick'}
        options={[
          { value: 'thin', words: 'thin: taken as it is written' },
          { value: 'thick', words: 'thick: taken at once' },
        ]}
        onChange={value => set({ isThin: value === 'thin' })}
      />
    </DraftFrame>
  )
}

function promised(pool: Pool): string {
  const capacity = provisionableBytes(pool)
  return capacity === 0n ? 'nothing' : `${((Number(pool.provisionedBytes) / Number(capacity)) * 100).toFixed(0)}%`
}

const poolWords = (pool: ProvisionProps['pools'][number]) =>
  `${pool.name} on ${pool.systemName}: ${formatBytes(provisionableBytes(pool) - pool.writtenBytes)} left, ${promised(pool)} promised${pool.state === 'fine' ? '' : `, ${pool.state}`}`
