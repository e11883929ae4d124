import type { Pool, System } from '@/core/estate'
import { createPoolIntent, formClusterIntent, growClusterIntent, setLocateLightIntent } from '@/core/intents'
import type { DriveLine } from '@/core/views'
import { growingIntent, newClusterIntent } from '../clusters/newClusterIntent'
import type { BulkDraft } from '../../drafts/BulkBar'
import { newPoolIntent } from '../../drafts/newPoolIntent'

/** What the intake has to know of a system to offer drafts for its drives. */
export interface IntakeSystem {
  readonly id: System['id']
  readonly name: string
  /** Whether its drives stand in nodes. */
  readonly isRow: boolean
  /** The pool that its cluster spreads over its nodes; null where there is none. */
  readonly clusterPoolId: Pool['id'] | null
}

type ChosenDrive = Pick<DriveLine, 'id' | 'systemId' | 'intake' | 'isLit'>

/**
 * What can be drafted for drives together; a reason in words where nothing can.
 * Lights for drives of one system; a cluster, its growth or a pool only for drives that are all free.
 */
export function bulkDrafts(
  drives: readonly ChosenDrive[],
  systems: readonly IntakeSystem[],
): readonly BulkDraft[] | string {
  const ids = [...new Set(drives.map(drive => drive.systemId))]
  const system = systems.find(each => each.id === ids[0])
  if (system === undefined || drives.length === 0) return 'Choose drives first.'
  if (ids.length > 1) return 'They stand in several systems; a draft is for one.'
  const driveIds = drives.map(drive => drive.id)
  const areLit = drives.every(drive => drive.isLit)
  const light: BulkDraft = {
    words: areLit ? 'Lights off' : 'Lights on',
    drafted: setLocateLightIntent,
    intent: { systemId: system.id, driveIds, isOn: !areLit },
  }
  if (drives.some(drive => drive.intake !== 'unassigned')) return [light]
  if (!system.isRow)
    return [
      light,
      {
        words: 'New pool',
        drafted: createPoolIntent,
        intent: { ...newPoolIntent(system.id), driveIds },
      },
    ]
  return [
    light,
    system.clusterPoolId === null
      ? {
          words: 'New cluster',
          drafted: formClusterIntent,
          intent: { ...newClusterIntent(system.id), driveIds },
        }
      : {
          words: 'Add to the cluster',
          drafted: growClusterIntent,
          intent: { ...growingIntent(system.id, system.clusterPoolId), driveIds },
        },
  ]
}
