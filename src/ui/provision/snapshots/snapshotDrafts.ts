import type { Snapshot } from '@/core/estate'
import {
  cloneVolumeIntent,
  holdSnapshotIntent,
  keepSnapshotsIntent,
  removeSnapshotsIntent,
  restoreVolumeIntent,
  showSnapshotIntent,
} from '@/core/intents'
import type { BulkDraft } from '../../drafts/BulkBar'

/** What can be drafted for the snapshots of a volume that are chosen; a reason in words where nothing can. */
export function snapshotDrafts(volumeId: string, chosen: readonly Snapshot[]): readonly BulkDraft[] | string {
  const [first] = chosen
  if (first === undefined) return 'Choose snapshots to remove, hold, clone or go back to them.'
  const snapshotIds = chosen.map(({ id }) => id)
  const going = chosen.filter(({ goesAt }) => goesAt !== null).length
  if (going === chosen.length)
    return [{ words: 'Bring back', drafted: keepSnapshotsIntent, intent: { volumeId, snapshotIds } }]
  if (going > 0) return 'Some of them are in holding, others are not.'
  const remove = { words: 'Remove', drafted: removeSnapshotsIntent, intent: { volumeId, snapshotIds, reason: '' } }
  if (chosen.length > 1) return [remove]
  const one = { volumeId, snapshotId: first.id }
  return [
    { words: 'Clone', drafted: cloneVolumeIntent, intent: { ...one, name: '', poolId: '', hostGroupId: '' } },
    { words: 'Go back to it', drafted: restoreVolumeIntent, intent: { ...one, confirmedName: '' } },
    { words: 'Show to hosts', drafted: showSnapshotIntent, intent: { ...one, hostGroupId: '' } },
    {
      words: first.heldReason === null ? 'Hold' : 'Release',
      drafted: holdSnapshotIntent,
      intent: { ...one, reason: '' },
    },
    remove,
  ]
}
