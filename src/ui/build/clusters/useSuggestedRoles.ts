import { group } from 'd3-array'
import { useMemo } from 'react'
import { suggestedRole, type SuggestedRole } from '@/core/clusters'
import type { Drive } from '@/core/estate'

/** The role that is suggested for each drive by those that stand in the same node, by its id. */
export const useSuggestedRoles = (drives: readonly Drive[]): Readonly<Record<string, SuggestedRole>> =>
  useMemo(() => {
    const byNode = group(
      drives.filter(drive => !drive.isBoot),
      drive => drive.nodeId,
    )
    return Object.fromEntries(drives.map(drive => [drive.id, suggestedRole(drive, byNode.get(drive.nodeId) ?? [])]))
  }, [drives])
