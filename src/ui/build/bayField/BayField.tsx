'use client'
import { useEffect, useMemo, useRef, useState } from 'react'
import { intakeState, suffixOf, type Drive } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { drawBays, paletteNow, type FieldMark, type Palette } from './drawBays'
import { cellFinder, cellsTouched, fieldLayout, type BayCell, type BayGroup } from './fieldLayout'

interface BayFieldProps {
  readonly label: string
  readonly groups: readonly BayGroup[]
  readonly marks?: ReadonlyMap<string, FieldMark>
  readonly highlighted?: string | undefined
  readonly chosen?: ReadonlySet<string>
  /** Drives that may be chosen; without it bays are only looked at. */
  readonly canChoose?: ((drive: Drive) => boolean) | undefined
  readonly onChoose?: (driveIds: readonly string[], isAdding: boolean) => void
  readonly onOpen?: (drive: Drive) => void
}

const noMarks: ReadonlyMap<string, FieldMark> = new Map()
const noDrives: ReadonlySet<string> = new Set()
const dragPixels = 4

/**
 * Bays of many enclosures together, as they stand. Drawn on a canvas, so that thousands stay quick. Chosen by clicking, by dragging over
 * them, or with the keyboard: arrows go from bay to bay, Space chooses, Shift with an arrow goes on choosing.
 */
export function BayField({
  label,
  groups,
  marks = noMarks,
  highlighted,
  chosen = noDrives,
  canChoose,
  onChoose,
  onOpen,
}: BayFieldProps) {
  const frame = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const [width, setWidth] = useState(760)
  const [palette, setPalette] = useState<Palette>()
  const [focused, focus] = useState<number>()
  const [hovered, hover] = useState<BayCell>()
  const drag = useRef<{ x: number; y: number; isMoving: boolean }>(undefined)
  const [band, setBand] = useState<{ x: number; y: number; width: number; height: number }>()
  const layout = useMemo(() => fieldLayout(groups, width), [groups, width])
  const find = useMemo(() => cellFinder(layout.cells), [layout])
  const focusedCell = focused === undefined ? undefined : layout.cells[focused]

  useEffect(() => {
    const element = frame.current
    if (element === null) return
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.floor(entry.contentRect.width))
    })
    observer.observe(element)
    const themes = new MutationObserver(() => setPalette(paletteNow()))
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
    const system = window.matchMedia('(prefers-color-scheme: dark)')
    const changed = () => setPalette(paletteNow())
    system.addEventListener('change', changed)
    // Fonts that come late change how wide figures are.
    void document.fonts.ready.then(() => setPalette(paletteNow()))
    return () => {
      observer.disconnect()
      themes.disconnect()
      system.removeEventListener('change', changed)
    }
  }, [])

  useEffect(() => {
    const element = canvas.current
    const context = element?.getContext('2d') ?? null
    if (element === null || context === null || palette === undefined) return
    const scale = window.devicePixelRatio || 1
    element.width = Math.ceil(width * scale)
    element.height = Math.ceil((layout.height + 4) * scale)
    context.setTransform(scale, 0, 0, scale, 0, 0)
    context.clearRect(0, 0, width, layout.height + 4)
    context.translate(2, 2)
    drawBays(context, layout, palette, {
      marks,
      chosen,
      focused: focusedCell,
      highlighted,
      isChoosing: canChoose !== undefined,
    })
  }, [layout, palette, marks, chosen, focusedCell, highlighted, width, canChoose])

  const at = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect()
    return { x: event.clientX - box.left - 2, y: event.clientY - box.top - 2 }
  }
  const choosable = (cells: readonly BayCell[]) =>
    cells.flatMap(({ drive }) => (drive !== undefined && canChoose?.(drive) === true ? [drive.id] : []))
  const take = (cell: BayCell | undefined, isAdding?: boolean) => {
    const ids = cell === undefined ? [] : choosable([cell])
    const [id] = ids
    if (id !== undefined) onChoose?.(ids, isAdding ?? !chosen.has(id))
  }
  const onKeyDown = (event: React.KeyboardEvent) => {
    const now = focused ?? -1
    const step = (to: number) => {
      const index = Math.max(0, Math.min(layout.cells.length - 1, to))
      focus(index)
      hover(undefined)
      if (event.shiftKey) take(layout.cells[index], true)
      event.preventDefault()
    }
    if (event.key === 'ArrowRight') step(now + 1)
    else if (event.key === 'ArrowLeft') step(now - 1)
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp')
      step(nearest(layout.cells, now, event.key === 'ArrowDown' ? 1 : -1))
    else if (event.key === 'Home') step(0)
    else if (event.key === 'End') step(layout.cells.length - 1)
    else if (event.key === ' ') {
      take(focusedCell)
      event.preventDefault()
    } else if (event.key === 'Enter' && !event.shiftKey && focusedCell?.drive !== undefined) onOpen?.(focusedCell.drive)
  }
  const told = hovered ?? focusedCell
  return (
    <div ref={frame} className="relative w-full select-none">
      <div
        role="application"
        aria-roledescription="bays"
        aria-label={`${label}. Arrow keys go from bay to bay${canChoose === undefined ? '' : ', Space chooses'}. The table beside it lists the same drives.`}
        tabIndex={0}
        data-field
        className="relative outline-offset-2"
        style={{
          height: layout.height + 4,
          cursor: canChoose === undefined ? 'default' : 'crosshair',
          touchAction: 'pan-y',
        }}
        onKeyDown={onKeyDown}
        onFocus={() => {
          if (focused === undefined && layout.cells.length > 0 && !drag.current) focus(0)
        }}
        onPointerDown={event => {
          drag.current = { ...at(event), isMoving: false }
        }}
        onPointerMove={event => {
          const here = at(event)
          const from = drag.current
          if (
            from !== undefined &&
            canChoose !== undefined &&
            (from.isMoving || Math.hypot(here.x - from.x, here.y - from.y) > dragPixels)
          ) {
            from.isMoving = true
            setBand({
              x: Math.min(from.x, here.x),
              y: Math.min(from.y, here.y),
              width: Math.abs(here.x - from.x),
              height: Math.abs(here.y - from.y),
            })
            return
          }
          const cell = find(here.x, here.y)
          if (cell !== hovered) hover(cell)
        }}
        onPointerLeave={() => hover(undefined)}
        onPointerUp={event => {
          const here = at(event)
          const from = drag.current
          drag.current = undefined
          setBand(undefined)
          if (from?.isMoving === true) {
            const ids = choosable(cellsTouched(layout.cells, from, here))
            if (ids.length > 0) onChoose?.(ids, !event.altKey)
            return
          }
          const cell = find(here.x, here.y)
          if (cell === undefined) return
          focus(layout.cells.indexOf(cell))
          if (canChoose === undefined) {
            if (cell.drive !== undefined) onOpen?.(cell.drive)
          } else take(cell)
        }}
      >
        <canvas ref={canvas} style={{ width, height: layout.height + 4 }} className="block" />
        {band !== undefined && (
          <div
            className="pointer-events-none absolute border border-action bg-action-wash opacity-60"
            style={{ left: band.x + 2, top: band.y + 2, width: band.width, height: band.height }}
          />
        )}
      </div>
      <div aria-live="polite" className="hint min-h-[18px]">
        {told === undefined
          ? canChoose === undefined
            ? 'Point at a bay, or use the arrow keys.'
            : 'Click, drag over bays (with Alt to give back), or use arrow keys and Space.'
          : wordsOf(told, marks, chosen)}
      </div>
    </div>
  )
}

/** The nearest bay in the row above or below. */
function nearest(cells: readonly BayCell[], index: number, direction: 1 | -1): number {
  const from = cells[index]
  if (from === undefined) return 0
  const beyond = cells.filter(cell => (cell.y - from.y) * direction > 4)
  const row = direction > 0 ? Math.min(...beyond.map(cell => cell.y)) : Math.max(...beyond.map(cell => cell.y))
  const own = beyond.filter(cell => cell.y === row)
  const [best] = own.sort((a, b) => Math.abs(a.x - from.x) - Math.abs(b.x - from.x))
  return best === undefined ? index : cells.indexOf(best)
}

function wordsOf(
  { bay, drive, groupId }: BayCell,
  marks: ReadonlyMap<string, FieldMark>,
  chosen: ReadonlySet<string>,
): string {
  if (drive === undefined) return `Bay ${bay}: empty`
  const state = intakeState(drive)
  const parts = [
    `Bay ${bay}, ${suffixOf(drive.serial)}`,
    `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.protocol === 'NVMe' ? 'NVMe' : drive.media}`,
    state === 'foreign' ? `left over: ${drive.leftOver?.partitions.join(', ') ?? ''}` : state,
    marks.get(drive.id)?.words ?? '',
    chosen.has(drive.id) ? 'chosen' : '',
    drive.isLit ? 'light on' : '',
  ]
  return groupId === '' ? '' : parts.filter(part => part !== '').join(' · ')
}
