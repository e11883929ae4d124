'use client'
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import type { ClusterSketch } from '@/core/plan'

/** The drives chosen for a cluster, shared by the bays on the sheet and the draft in the margin. */
interface Choice {
  readonly chosen: readonly string[]
  readonly choose: (driveIds: readonly string[]) => void
  readonly sketch: ClusterSketch | undefined
  readonly show: (sketch: ClusterSketch | undefined) => void
}

const ChoiceContext = createContext<Choice>({
  chosen: [],
  choose: () => undefined,
  sketch: undefined,
  show: () => undefined,
})
export const useClusterChoice = () => useContext(ChoiceContext)

export function ClusterChoice({
  initial,
  children,
}: {
  readonly initial: readonly string[]
  readonly children: ReactNode
}) {
  const [chosen, choose] = useState(initial)
  const [sketch, show] = useState<ClusterSketch>()
  const value = useMemo(() => ({ chosen, choose, sketch, show }), [chosen, sketch])
  return <ChoiceContext value={value}>{children}</ChoiceContext>
}
