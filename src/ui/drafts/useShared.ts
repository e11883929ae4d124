import { useEffect } from 'react'
import type { Sketch } from '@/core/plan'
import type { Draft } from './useDraft'

type SketchOf<Kind extends Sketch['of']> = Extract<Sketch, { of: Kind }>

/** Drives are chosen on the sheet and in the margin alike: what is chosen there goes into the draft. */
export function useChosenDrives<Intent extends { readonly driveIds: readonly string[] }>(
  { intent: { driveIds }, set }: Draft<Intent>,
  chosen: readonly string[],
): void {
  useEffect(() => {
    if (chosen.join() !== driveIds.join()) set({ driveIds: chosen } as Partial<Intent>)
  }, [chosen, driveIds, set])
}

/** What the plan draws is shown on the sheet too. */
export function useShownSketch<Kind extends Sketch['of']>(
  sketch: Sketch | undefined,
  kind: Kind,
  show: (sketch: SketchOf<Kind> | undefined) => void,
): void {
  useEffect(() => show(sketch?.of === kind ? (sketch as SketchOf<Kind>) : undefined), [sketch, kind, show])
}
