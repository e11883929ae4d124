import { useMemo, useRef, useState, type PointerEvent } from 'react'
import { cellFinder, cellsTouched, type BayCell, type FieldLayout } from './fieldLayout'

interface Point {
  readonly x: number
  readonly y: number
}

interface Hearing {
  /** Whether a band can be drawn over bays. */
  readonly canDrag: boolean
  readonly hover: (cell: BayCell | undefined) => void
  readonly press: (cell: BayCell) => void
  /** @param isAdding false where they are given back */
  readonly over: (cells: readonly BayCell[], isAdding: boolean) => void
}

/** The pointer has to move so far before it draws a band (pixels). */
const dragPixels = 4

/** A pointer over bays: what it points at, presses, and the band that it draws over several. */
export function useBand(layout: FieldLayout, { canDrag, hover, press, over }: Hearing) {
  const find = useMemo(() => cellFinder(layout.cells), [layout])
  const from = useRef<Point & { isMoving: boolean }>(undefined)
  const [band, setBand] = useState<Point & { readonly width: number; readonly height: number }>()
  const at = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect()
    return { x: event.clientX - box.left - 2, y: event.clientY - box.top - 2 }
  }
  const onPointerMove = (event: PointerEvent) => {
    const here = at(event)
    const began = from.current
    const isFar = began !== undefined && Math.hypot(here.x - began.x, here.y - began.y) > dragPixels
    if (began === undefined || !canDrag || !(began.isMoving || isFar)) return hover(find(here.x, here.y))
    began.isMoving = true
    setBand({
      x: Math.min(began.x, here.x),
      y: Math.min(began.y, here.y),
      width: Math.abs(here.x - began.x),
      height: Math.abs(here.y - began.y),
    })
  }
  const onPointerUp = (event: PointerEvent) => {
    const here = at(event)
    const began = from.current
    from.current = undefined
    setBand(undefined)
    if (began?.isMoving === true) return over(cellsTouched(layout.cells, began, here), !event.altKey)
    const cell = find(here.x, here.y)
    if (cell !== undefined) press(cell)
  }
  return {
    band,
    isPressed: () => from.current !== undefined,
    pointer: {
      onPointerDown: (event: PointerEvent) => {
        from.current = { ...at(event), isMoving: false }
      },
      onPointerMove,
      onPointerLeave: () => hover(undefined),
      onPointerUp,
    },
  }
}
