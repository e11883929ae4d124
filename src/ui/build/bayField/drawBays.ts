import { intakeState, suffixOf, type Drive, type IntakeState } from '@/core/estate'
import type { BayCell, FieldLayout } from './fieldLayout'

/** What a bay shows besides its drive. */
export interface FieldMark {
  readonly words: string
  readonly colour: string
  /** One letter for the role: c for cache, d for data. */
  readonly letter: string
}

export interface Palette {
  readonly [name: string]: string
}
const names = [
  '--ink',
  '--second',
  '--faint',
  '--rule',
  '--sheet',
  '--paper',
  '--action',
  '--now',
  '--soon',
  '--note',
  '--d1',
  '--d2',
  '--d3',
  '--d4',
  '--d5',
  '--d6',
  '--d7',
] as const

/** The colours and fonts of the page as they are now, by day or by night: a canvas cannot use variables. */
export function paletteNow(): Palette {
  const style = getComputedStyle(document.documentElement)
  const mono = style.getPropertyValue('--font-mono') || 'monospace'
  return Object.fromEntries([
    ...names.map(name => [name, style.getPropertyValue(name).trim()]),
    ['mono', mono],
    ['sans', getComputedStyle(document.body).fontFamily],
  ])
}

/** What is drawn of bays besides the bays. */
export interface Drawn {
  readonly marks: ReadonlyMap<string, FieldMark>
  readonly chosen: ReadonlySet<string>
  readonly focused: BayCell | undefined
  readonly highlighted: string | undefined
  readonly isChoosing: boolean
}

const resolve = (colour: string, palette: Palette) => palette[/var\((--[\w-]+)\)/.exec(colour)?.[1] ?? ''] ?? colour

/** Draws all bays; some two thousand take a few milliseconds. */
export function drawBays(context: CanvasRenderingContext2D, layout: FieldLayout, palette: Palette, drawn: Drawn): void {
  const ink = (name: string) => palette[name] ?? '#000'
  context.textBaseline = 'alphabetic'
  for (const { group, x, y, width } of layout.titles) {
    context.font = `600 12px ${palette['sans'] ?? 'sans-serif'}`
    context.fillStyle = ink('--second')
    context.fillText(group.title, x, y)
    const titleWidth = context.measureText(group.title).width
    context.font = `11px ${palette['sans'] ?? 'sans-serif'}`
    context.fillStyle = ink('--faint')
    if (titleWidth + 8 < width) context.fillText(group.note, x + titleWidth + 8, y, width - titleWidth - 8)
  }
  for (const cell of layout.cells) drawCell(context, cell, palette, drawn)
  if (drawn.focused !== undefined) {
    const { x, y, width, height } = drawn.focused
    context.strokeStyle = ink('--action')
    context.lineWidth = 2
    context.strokeRect(x - 1.5, y - 1.5, width + 3, height + 3)
  }
}

type Ink = (name: string) => string

function drawCell(context: CanvasRenderingContext2D, cell: BayCell, palette: Palette, drawn: Drawn): void {
  const { x, y, width, height, drive } = cell
  const ink: Ink = name => palette[name] ?? '#000'
  if (drive === undefined) return drawEmpty(context, cell, ink)
  const mark = drawn.marks.get(drive.id)
  const isChosen = drawn.chosen.has(drive.id)
  const state = intakeState(drive)
  const isShut = drawn.isChoosing && !isChosen && mark === undefined && state !== 'unassigned'
  const isStrong = drawn.highlighted === drive.id || isChosen
  context.fillStyle = ink('--sheet')
  context.fillRect(x, y, width, height)
  if (mark !== undefined) {
    context.globalAlpha = 0.26
    context.fillStyle = resolve(mark.colour, palette)
    context.fillRect(x, y, width, height)
    context.globalAlpha = 1
  }
  if (state === 'foreign' || state === 'spare') hatch(context, cell, ink(state === 'foreign' ? '--soon' : '--faint'))
  context.globalAlpha = isShut ? 0.55 : 1
  const edge = mark === undefined ? ink('--rule') : resolve(mark.colour, palette)
  context.strokeStyle = isStrong ? ink('--action') : edge
  context.lineWidth = isStrong ? 2 : 1
  context.strokeRect(x + 0.5, y + 0.5, width - 1, height - 1)
  if (state !== 'boot' && state !== 'failed' && state !== 'failing') drawMedia(context, cell, drive, ink)
  drawWords(context, cell, drive, mark, palette)
  context.globalAlpha = 1
  if (drive.isLit) {
    context.strokeStyle = ink('--note')
    context.lineWidth = 2
    context.strokeRect(x + 3.5, y + 3.5, width - 7, height - 7)
  }
  drawState(context, cell, state, palette)
}

function drawEmpty(context: CanvasRenderingContext2D, { x, y, width, height }: BayCell, ink: Ink): void {
  context.strokeStyle = ink('--rule')
  context.lineWidth = 1
  context.setLineDash([3, 3])
  context.strokeRect(x + 0.5, y + 0.5, width - 1, height - 1)
  context.setLineDash([])
}

/** Media by texture: a ring is a platter, a bar is flash. */
function drawMedia(context: CanvasRenderingContext2D, { x, y, width }: BayCell, { media }: Drive, ink: Ink): void {
  context.strokeStyle = ink('--faint')
  context.lineWidth = 1.2
  context.beginPath()
  if (media === 'HDD') context.arc(x + width - 6.5, y + 8.5, 3, 0, Math.PI * 2)
  else {
    context.moveTo(x + width - 9.5, y + 8.5)
    context.lineTo(x + width - 3.5, y + 8.5)
  }
  context.stroke()
}

/** The bay's number with its role, and what stands on the drive's label. */
function drawWords(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: BayCell,
  { bay, serial }: Drive,
  mark: FieldMark | undefined,
  palette: Palette,
): void {
  const mono = palette['mono'] ?? 'monospace'
  const letter = mark === undefined || width < 40 ? '' : mark.letter
  context.fillStyle = palette['--second'] ?? '#000'
  context.font = `10px ${mono}`
  context.fillText(letter === '' ? `${bay}` : `${bay} ${letter}`, x + 4, y + 12)
  context.fillStyle = palette['--ink'] ?? '#000'
  context.font = `${width < 40 ? 10.5 : 12}px ${mono}`
  context.textAlign = 'center'
  context.fillText(suffixOf(serial), x + width / 2, y + height - 7)
  context.textAlign = 'start'
}

const stateMarks: Readonly<Partial<Record<IntakeState, { readonly ink: string; readonly text: string }>>> = {
  failed: { ink: '--now', text: '▲' },
  failing: { ink: '--soon', text: '◐' },
  boot: { ink: '--second', text: 'boot' },
}

function drawState(
  context: CanvasRenderingContext2D,
  { x, y, width }: BayCell,
  state: IntakeState,
  palette: Palette,
): void {
  const mark = stateMarks[state]
  if (mark === undefined) return
  context.fillStyle = palette[mark.ink] ?? '#000'
  context.font = `11px ${palette['sans'] ?? 'sans-serif'}`
  context.fillText(mark.text, state === 'boot' ? x + 17 : x + width - 12, y + 12)
}

function hatch(context: CanvasRenderingContext2D, { x, y, width, height }: BayCell, colour: string): void {
  context.save()
  context.beginPath()
  context.rect(x, y, width, height)
  context.clip()
  context.globalAlpha = 0.45
  context.strokeStyle = colour
  context.lineWidth = 1
  context.beginPath()
  for (let at = -height; at < width; at += 7) {
    context.moveTo(x + at, y + height)
    context.lineTo(x + at + height, y)
  }
  context.stroke()
  context.restore()
}
