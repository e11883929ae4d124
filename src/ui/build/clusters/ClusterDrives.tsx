'use client'
import type { Drive, Node } from '@/core/estate'
import type { Draft } from '../../drafts/useDraft'
import { useChosenDrives } from '../../drafts/useShared'
import { useClusterChoice } from './ClusterChoice'
import { DrivePicker } from './DrivePicker'

type Role = 'cache' | 'capacity'

interface ClusterDrivesProps<Intent> {
  readonly draft: Draft<Intent>
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly suggested: Parameters<typeof DrivePicker>[0]['suggested']
}

/** Free drives of the nodes with the role of each, as a draft holds them. */
export function ClusterDrives<
  Intent extends { readonly driveIds: readonly string[]; readonly roles: Readonly<Record<string, Role>> },
>({ draft, nodes, drives, suggested }: ClusterDrivesProps<Intent>) {
  const { chosen, choose } = useClusterChoice()
  useChosenDrives(draft, chosen)
  return (
    <DrivePicker
      nodes={nodes}
      drives={drives.filter(drive => !drive.isBoot && drive.role === 'unassigned' && drive.state !== 'failed')}
      chosen={chosen}
      choose={choose}
      roles={draft.intent.roles}
      setRoles={roles => draft.set({ roles } as Partial<Intent>)}
      suggested={suggested}
    />
  )
}
