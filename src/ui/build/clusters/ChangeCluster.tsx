'use client'
import { group } from 'd3-array'
import { useMemo } from 'react'
import { suggestedRole } from '@/core/clusters'
import type { Drive, Node, Pool } from '@/core/estate'
import type { GrowClusterIntent, ShrinkClusterIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'
import type { Draft } from '../../drafts/useDraft'
import { useChosenDrives } from '../../drafts/useShared'
import { useClusterChoice } from './ClusterChoice'
import { ClusterDrives } from './ClusterDrives'
import { DrivePicker } from './DrivePicker'
import { growingIntent } from './newClusterIntent'

interface ChangeClusterProps {
  readonly pool: Pool
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly kept: ChangeRecord | undefined
}

/** Adding nodes, banks or drives: what is chosen decides which of these it is. */
export function GrowCluster({ pool, nodes, drives, kept }: ChangeClusterProps) {
  const suggested = useMemo(() => {
    const byNode = group(
      drives.filter(drive => !drive.isBoot),
      drive => drive.nodeId,
    )
    return Object.fromEntries(drives.map(drive => [drive.id, suggestedRole(drive, byNode.get(drive.nodeId) ?? [])]))
  }, [drives])
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
      driveIds: draft => (
        <LeavingDrives draft={draft} nodes={nodes} drives={drives.filter(drive => drive.poolId === pool.id)} />
      ),
    }}
    kept={kept}
  />
)

function LeavingDrives({
  draft,
  nodes,
  drives,
}: Pick<ChangeClusterProps, 'nodes' | 'drives'> & { readonly draft: Draft<ShrinkClusterIntent> }) {
  const { chosen, choose } = useClusterChoice()
  useChosenDrives(draft, chosen)
  return <DrivePicker nodes={nodes} drives={drives} chosen={chosen} choose={choose} roles={{}} suggested={{}} />
}
