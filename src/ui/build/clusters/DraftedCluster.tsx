'use client'
import { useClusterChoice } from './ClusterChoice'
import { ClusterPlan } from './ClusterPlan'

/** What the choice in the bays makes of them, beneath the bays, while its draft stands in the margin. */
export function DraftedCluster() {
  const { sketch } = useClusterChoice()
  return sketch === undefined ? (
    <div className="mt-4 h-40 rounded-sm bg-rule-fine" aria-label="Computing" />
  ) : (
    <ClusterPlan sketch={sketch} isWide />
  )
}
