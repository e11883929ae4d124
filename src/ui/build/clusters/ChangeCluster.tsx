'use client'
import { useEffect, useMemo } from 'react'
import { suggestedRole } from '@/core/clusters'
import type { Drive, Node, Pool } from '@/core/estate'
import type { GrowClusterIntent, ShrinkClusterIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { NumberField } from '../../parts/NumberField'
import { useClusterChoice } from './ClusterChoice'
import { DrivePicker } from './DrivePicker'
import { growingIntent } from './newClusterIntent'

interface ChangeClusterProps {
  readonly pool: Pool
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly kept: ChangeRecord | undefined
}

function Rate({ value, set }: { readonly value: number; readonly set: (percent: number) => void }) {
  return (
    <NumberField
      label="Rate of moving"
      hint="% of drives and links; hosts have the rest"
      value={value}
      least={5}
      most={100}
      step={5}
      onChange={set}
    />
  )
}

/** Adding nodes, banks or drives: what is chosen decides which of these it is. */
export function GrowCluster({ pool, nodes, drives, kept }: ChangeClusterProps) {
  const { chosen, choose } = useClusterChoice()
  const draft = useDraft<GrowClusterIntent>('grow-cluster', growingIntent(pool.systemId, pool.id), kept)
  const { intent, set } = draft
  useEffect(() => {
    if (JSON.stringify(chosen) !== JSON.stringify(intent.driveIds)) set({ driveIds: chosen })
  }, [chosen, intent.driveIds, set])
  const suggested = useMemo(
    () =>
      Object.fromEntries(
        drives.map(drive => [
          drive.id,
          suggestedRole(
            drive,
            drives.filter(each => each.nodeId === drive.nodeId && !each.isBoot),
          ),
        ]),
      ),
    [drives],
  )
  return (
    <DraftFrame title={`Add to ${pool.name}`} draft={draft}>
      <p className="text-second">
        Drives of a node that is not in the cluster bring the node in. Capacity without a cache drive goes behind the
        cache drives that its node has.
      </p>
      <DrivePicker
        nodes={nodes}
        drives={drives.filter(drive => !drive.isBoot && drive.role === 'unassigned' && drive.state !== 'failed')}
        chosen={chosen}
        choose={choose}
        roles={intent.roles}
        setRoles={roles => set({ roles })}
        suggested={suggested}
      />
      <Rate value={intent.ratePercent} set={ratePercent => set({ ratePercent })} />
    </DraftFrame>
  )
}

/** Taking drives, banks or whole nodes out, after what they hold has moved. */
export function ShrinkCluster({ pool, nodes, drives, kept }: ChangeClusterProps) {
  const { chosen, choose } = useClusterChoice()
  const draft = useDraft<ShrinkClusterIntent>(
    'shrink-cluster',
    { systemId: pool.systemId, poolId: pool.id, driveIds: [] as readonly string[], ratePercent: 50 },
    kept,
  )
  const { intent, set } = draft
  useEffect(() => {
    if (JSON.stringify(chosen) !== JSON.stringify(intent.driveIds)) set({ driveIds: chosen })
  }, [chosen, intent.driveIds, set])
  return (
    <DraftFrame title={`Take out of ${pool.name}`} draft={draft}>
      <p className="text-second">
        A cache drive takes its whole bank with it. A node of which nothing is left goes too.
      </p>
      <DrivePicker
        nodes={nodes}
        drives={drives.filter(drive => drive.poolId === pool.id)}
        chosen={chosen}
        choose={choose}
        roles={{}}
        suggested={{}}
      />
      <Rate value={intent.ratePercent} set={ratePercent => set({ ratePercent })} />
    </DraftFrame>
  )
}
