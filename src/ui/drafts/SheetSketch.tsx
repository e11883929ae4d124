'use client'
import { createContext, use, useMemo, useState, type ReactNode } from 'react'
import type { Sketch } from '@/core/plan'

interface Shared {
  readonly sketch: Sketch | undefined
  readonly show: (sketch: Sketch | undefined) => void
}

const SheetContext = createContext<Shared>({ sketch: undefined, show: () => undefined })

/** What the draft in the margin draws, for the sheet beside it. */
export const useSheetSketch = () => use(SheetContext)

/** Lets the sheet draw what the draft in the margin computes. */
export function SheetSketch({ children }: { readonly children: ReactNode }) {
  const [sketch, show] = useState<Sketch>()
  const value = useMemo(() => ({ sketch, show }), [sketch])
  return <SheetContext value={value}>{children}</SheetContext>
}
