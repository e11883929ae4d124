'use client'
import { useMemo } from 'react'
import type { Drive, Node, Pool } from '@/core/estate'
import type { GrowClusterIntent, ShrinkClusterIntent } from '@/core/intents'
import { unpacked, type ShownChange, type Packed } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'
import type { Draft } from '../../drafts/useDraft'
import { useChosenDrives } from '../../drafts/useShared'
import { useClusterChoice } from './ClusterChoice'
import { ClusterDrives } from './ClusterDrives'
import { DrivePicker } from './DrivePicker'
import { growingIntent } from './newClusterIntent'
import { useSuggestedRoles } from './useSuggestedRoles'

interface ChangeClusterProps {
  readonly pool: Pool
  readonly nodes: readonly Node[]
  readonly drives: Packed<Drive>
  readonly kept: ShownChange | undefined
}

/** Adding nodes, banks or drives: what is chosen decides which of these it is. */
export function GrowCluster({ pool, nodes, drives: given, kept }: ChangeClusterProps) {
  const drives = useMemo(() => unpacked(given), [given])
  const suggested = useSuggestedRoles(drives)
  return (
    <IntentForm<GrowClusterIntent>
      kind="grow-cluster"
      title={`Add to ${pool.name}`}
      begin={growingIntent(pool.systemId, pool.id)}
      parts={{
        driveIds: draft => <ClusterDrives draft={draft} nodes={nodes} drives={drives} suggested={suggested} />,
      }}
      kept={kept}
    />
  )
}

/** Taking drives, banks or whole nodes out, after what they hold has moved. */
export const ShrinkCluster = ({ pool, nodes, drives, kept }: ChangeClusterProps) => (
  <IntentForm<ShrinkClusterIntent>
    kind="shrink-cluster"
    title={`Take out of ${pool.name}`}
    begin={{ systemId: pool.systemId, poolId: pool.id, ratePercent: 50 }}
    parts={{
      driveIds: draft => <LeavingDrives draft={draft} pool={pool} nodes={nodes} drives={drives} />,
    }}
    kept={kept}
  />
)

function LeavingDrives({
  draft,
  pool,
  nodes,
  drives,
}: Omit<ChangeClusterProps, 'kept'> & { readonly draft: Draft<ShrinkClusterIntent> }) {
  const own = useMemo(() => unpacked(drives).filter(drive => drive.poolId === pool.id), [drives, pool.id])
  const { chosen, choose } = useClusterChoice()
  useChosenDrives(draft, chosen)
  return <DrivePicker nodes={nodes} drives={own} chosen={chosen} choose={choose} roles={{}} suggested={{}} />
}
