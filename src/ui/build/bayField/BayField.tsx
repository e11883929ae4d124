'use client'
import { useMemo, useRef, useState } from 'react'
import { intakeState, kindWords, suffixOf, type Drive } from '@/core/estate'
import type { FieldMark } from './drawBays'
import { fieldLayout, type BayCell, type BayGroup } from './fieldLayout'
import { useBand } from './useBand'
import { useDrawnBays, useWidth } from './useDrawnBays'

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

/**
 * Bays of many enclosures together, as they stand. Drawn on a canvas, so that thousands stay quick. Chosen by clicking, by dragging over
 * them, or with the keyboard: arrows go from bay to bay, Space chooses, Shift with an arrow goes on choosing.
 */
export function BayField(props: BayFieldProps) {
  const { groups, marks = noMarks, highlighted, chosen = noDrives, canChoose, onChoose, onOpen } = props
  const frame = useRef<HTMLDivElement>(null)
  const width = useWidth(frame)
  const [focused, focus] = useState<number>()
  const [hovered, hover] = useState<BayCell>()
  const layout = useMemo(() => fieldLayout(groups, width), [groups, width])
  const focusedCell = focused === undefined ? undefined : layout.cells[focused]
  const drawn = { marks, chosen, focused: focusedCell, highlighted, isChoosing: canChoose !== undefined }
  const canvas = useDrawnBays(layout, width, drawn)
  const { choosable, take } = choosing(props)
  const press = (cell: BayCell) => {
    focus(layout.cells.indexOf(cell))
    if (canChoose !== undefined) take(cell)
    else if (cell.drive !== undefined) onOpen?.(cell.drive)
  }
  const { band, isPressed, pointer } = useBand(layout, {
    canDrag: canChoose !== undefined,
    hover,
    press,
    over: (cells, isAdding) => {
      const ids = choosable(cells)
      if (ids.length > 0) onChoose?.(ids, isAdding)
    },
  })
  const go = (to: number, isTaking: boolean) => {
    focus(to)
    hover(undefined)
    if (isTaking) take(layout.cells[to], true)
  }
  return (
    <div ref={frame} className="relative w-full select-none">
      <div
        {...fieldAttributes(props)}
        style={{ height: layout.height + 4 }}
        onKeyDown={event => pressed(event, { cells: layout.cells, focused, go, take, onOpen })}
        onFocus={() => {
          if (focused === undefined && layout.cells.length > 0 && !isPressed()) focus(0)
        }}
        {...pointer}
      >
        <canvas ref={canvas} style={{ width, height: layout.height + 4 }} className="block" />
        {band !== undefined && <Band band={band} />}
      </div>
      <Told cell={hovered ?? focusedCell} canChoose={canChoose !== undefined} {...{ marks, chosen }} />
    </div>
  )
}

interface ToldProps extends Required<Pick<BayFieldProps, 'marks' | 'chosen'>> {
  readonly cell: BayCell | undefined
  readonly canChoose: boolean
}

/** What stands in the bay that is looked at; without one, how bays are chosen. */
const Told = ({ cell, canChoose, marks, chosen }: ToldProps) => (
  <div aria-live="polite" className="hint min-h-[18px]">
    {cell === undefined ? hintOf(canChoose) : wordsOf(cell, marks, chosen)}
  </div>
)

const fieldAttributes = ({ label, canChoose }: BayFieldProps) => ({
  role: 'application',
  'aria-roledescription': 'bays',
  'aria-label': `${label}. Arrow keys go from bay to bay${canChoose === undefined ? '' : ', Space chooses'}. The table beside it lists the same drives.`,
  tabIndex: 0,
  'data-field': true,
  className: `relative touch-pan-y outline-offset-2 ${canChoose === undefined ? 'cursor-default' : 'cursor-crosshair'}`,
})

const Band = ({ band }: { readonly band: NonNullable<ReturnType<typeof useBand>['band']> }) => (
  <div
    className="pointer-events-none absolute border border-action bg-action-wash opacity-60"
    style={{ left: band.x + 2, top: band.y + 2, width: band.width, height: band.height }}
  />
)

/** Which drives may be chosen, and how one is taken or given back. */
function choosing({ chosen = noDrives, canChoose, onChoose }: BayFieldProps) {
  const choosable = (cells: readonly BayCell[]) =>
    cells.flatMap(({ drive }) => (drive !== undefined && canChoose?.(drive) === true ? [drive.id] : []))
  const take = (cell: BayCell | undefined, isAdding?: boolean) => {
    const ids = cell === undefined ? [] : choosable([cell])
    const [id] = ids
    if (id !== undefined) onChoose?.(ids, isAdding ?? !chosen.has(id))
  }
  return { choosable, take }
}

interface Keyed extends Pick<BayFieldProps, 'onOpen'> {
  readonly cells: readonly BayCell[]
  readonly focused: number | undefined
  readonly go: (to: number, isTaking: boolean) => void
  readonly take: (cell: BayCell | undefined) => void
}

/** What a key does: go to another bay, choose the one that is in focus, or open its drive. */
function pressed(event: React.KeyboardEvent, { cells, focused, go, take, onOpen }: Keyed): void {
  const cell = focused === undefined ? undefined : cells[focused]
  const to = goesTo(event.key, cells, focused ?? -1)
  if (to !== undefined) go(to, event.shiftKey)
  else if (event.key === ' ') take(cell)
  else {
    if (event.key === 'Enter' && !event.shiftKey && cell?.drive !== undefined) onOpen?.(cell.drive)
    return
  }
  event.preventDefault()
}

const hintOf = (canChoose: boolean) =>
  canChoose
    ? 'Click, drag over bays (with Alt to give back), or use arrow keys and Space.'
    : 'Point at a bay, or use the arrow keys.'

/** The bay that a key leads to; undefined for keys that lead to none. */
function goesTo(key: string, cells: readonly BayCell[], now: number): number | undefined {
  const last = cells.length - 1
  const within = (to: number) => Math.max(0, Math.min(last, to))
  switch (key) {
    case 'ArrowRight':
      return within(now + 1)
    case 'ArrowLeft':
      return within(now - 1)
    case 'ArrowDown':
      return within(nearest(cells, now, 1))
    case 'ArrowUp':
      return within(nearest(cells, now, -1))
    case 'Home':
      return 0
    case 'End':
      return within(last)
    default:
      return undefined
  }
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
    kindWords(drive),
    state === 'foreign' ? `left over: ${drive.leftOver?.partitions.join(', ') ?? ''}` : state,
    marks.get(drive.id)?.words ?? '',
    chosen.has(drive.id) ? 'chosen' : '',
    drive.isLit ? 'light on' : '',
  ]
  return groupId === '' ? '' : parts.filter(part => part !== '').join(' · ')
}
