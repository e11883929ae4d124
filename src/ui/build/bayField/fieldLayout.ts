import type { Drive } from '@/core/estate'

/** Bays that stand together: an enclosure or a node. */
export interface BayGroup {
  readonly id: string
  readonly title: string
  readonly note: string
  readonly bayCount: number
  readonly baysPerRow: number
  readonly drives: readonly Drive[]
}

export interface BayCell {
  readonly groupId: string
  readonly bay: number
  readonly drive: Drive | undefined
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export interface FieldLayout {
  readonly cells: readonly BayCell[]
  readonly titles: readonly {
    readonly group: BayGroup
    readonly x: number
    readonly y: number
    readonly width: number
  }[]
  readonly height: number
}

const gapPixels = 3
const groupGapPixels = 14
const titlePixels = 20
const cellHeightPixels = 34

/** Where every bay of every group stands, in pixels: rows of bays as in the rack, groups side by side as far as the width allows. */
export function fieldLayout(groups: readonly BayGroup[], widthPixels: number): FieldLayout {
  const cells: BayCell[] = []
  const titles: FieldLayout['titles'][number][] = []
  let x = 0
  let y = 0
  let rowHeight = 0
  for (const group of groups) {
    const perRow = Math.max(1, group.baysPerRow)
    const isNarrow = perRow > 12
    const cellWidth = Math.max(18, Math.min(isNarrow ? 29 : 43, (widthPixels - gapPixels * (perRow - 1)) / perRow))
    const width = perRow * (cellWidth + gapPixels) - gapPixels
    const rows = Math.ceil(group.bayCount / perRow)
    const height = titlePixels + rows * (cellHeightPixels + gapPixels)
    if (x > 0 && x + width > widthPixels) {
      x = 0
      y += rowHeight + groupGapPixels
      rowHeight = 0
    }
    titles.push({ group, x, y: y + 13, width })
    const byBay = new Map(group.drives.map(drive => [drive.bay, drive]))
    for (let index = 0; index < group.bayCount; index += 1) {
      cells.push({
        groupId: group.id,
        bay: index + 1,
        drive: byBay.get(index + 1),
        x: x + (index % perRow) * (cellWidth + gapPixels),
        y: y + titlePixels + Math.floor(index / perRow) * (cellHeightPixels + gapPixels),
        width: cellWidth,
        height: cellHeightPixels,
      })
    }
    x += width + groupGapPixels
    rowHeight = Math.max(rowHeight, height)
  }
  return { cells, titles, height: groups.length === 0 ? 0 : y + rowHeight }
}

/** Finds bays by place in constant time: cells by the squares of a coarse grid. */
export function cellFinder(cells: readonly BayCell[]): (x: number, y: number) => BayCell | undefined {
  const square = 64
  const bySquare = new Map<string, BayCell[]>()
  for (const cell of cells) {
    for (let column = Math.floor(cell.x / square); column <= Math.floor((cell.x + cell.width) / square); column += 1) {
      for (let row = Math.floor(cell.y / square); row <= Math.floor((cell.y + cell.height) / square); row += 1) {
        const key = `${column}/${row}`
        const own = bySquare.get(key)
        if (own === undefined) bySquare.set(key, [cell])
        else own.push(cell)
      }
    }
  }
  return (x, y) =>
    bySquare
      .get(`${Math.floor(x / square)}/${Math.floor(y / square)}`)
      ?.find(cell => x >= cell.x && x <= cell.x + cell.width && y >= cell.y && y <= cell.y + cell.height)
}

/** Cells that a dragged rectangle touches; its corners in any order. */
export function cellsTouched(
  cells: readonly BayCell[],
  from: { readonly x: number; readonly y: number },
  to: { readonly x: number; readonly y: number },
): BayCell[] {
  const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)]
  const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)]
  return cells.filter(
    cell => cell.x <= right && cell.x + cell.width >= left && cell.y <= bottom && cell.y + cell.height >= top,
  )
}

/** Bays written as `1-8, 11`; undefined where it cannot be read. */
export function readBays(text: string): ReadonlySet<number> | undefined {
  const bays = new Set<number>()
  for (const part of text.split(',')) {
    const match = /^\s*(\d{1,3})\s*(?:[-–]\s*(\d{1,3})\s*)?$/.exec(part)
    if (match === null) return undefined
    const from = Number(match[1])
    const to = Number(match[2] ?? match[1])
    if (from > to || to > 500) return undefined
    for (let bay = from; bay <= to; bay += 1) bays.add(bay)
  }
  return bays
}
