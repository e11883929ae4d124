'use client'
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react'
import type { Sketch } from '@/core/plan'

type PoolSketch = Extract<Sketch, { of: 'pool' }>

/** The drives chosen for a pool, shared by the bays on the sheet and the draft in the margin. */
interface Choice {
  readonly isOpen: boolean
  readonly chosen: readonly string[]
  readonly choose: (driveIds: readonly string[]) => void
  readonly sketch: PoolSketch | undefined
  readonly show: (sketch: PoolSketch | undefined) => void
}

const ChoiceContext = createContext<Choice>({
  isOpen: false,
  chosen: [],
  choose: () => undefined,
  sketch: undefined,
  show: () => undefined,
})
export const usePoolChoice = () => useContext(ChoiceContext)

export function PoolChoice({
  isOpen,
  initial,
  children,
}: {
  readonly isOpen: boolean
  readonly initial: readonly string[]
  readonly children: ReactNode
}) {
  const [chosen, choose] = useState(initial)
  const [sketch, show] = useState<PoolSketch>()
  const value = useMemo(() => ({ isOpen, chosen, choose, sketch, show }), [isOpen, chosen, sketch])
  return <ChoiceContext value={value}>{children}</ChoiceContext>
}
