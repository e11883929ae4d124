import type { BoardPage } from '@/core/views'
import { hourWords } from '../../parts/hourWords'
import { laneKey, seriesWords } from './seriesWords'

const svg = 'http://www.w3.org/2000/svg'
const [labelWidth, laneWidth, laneHeight, lineHeight, edge] = [190, 620, 86, 15, 10]

/**
 * The lanes of a board as they are drawn now, with what they are of and what happened to it: a picture that stands for itself (SVG).
 * @param drawings of lanes, which say of which (`laneKey` in `data-lane`)
 */
export function boardPicture(drawings: readonly SVGSVGElement[], page: BoardPage): string {
  const [width, eventsAt] = [labelWidth + laneWidth + 2 * edge, edge + 20 + page.lanes.length * (laneHeight + 8)]
  const height = eventsAt + page.events.length * lineHeight + edge
  const root = element('svg', { viewBox: `0 0 ${width} ${height}`, width, height, 'font-family': 'sans-serif' })
  root.append(element('rect', { width, height, fill: 'var(--paper)' }))
  const line = (words: string, x: number, y: number, more: Readonly<Record<string, string | number>> = {}) =>
    root.append(element('text', { x, y, 'font-size': 11, fill: 'var(--ink)', ...more }, words))
  line(`${hourWords(page.from)} – ${hourWords(page.until)} UTC`, labelWidth + edge, edge + 8, { fill: 'var(--second)' })
  page.lanes.forEach((lane, index) => {
    const y = edge + 20 + index * (laneHeight + 8)
    line(seriesWords(lane.of), edge, y + 14, { 'font-weight': 'bold' })
    if (lane.over !== null) line(`over it: ${seriesWords(lane.over.of)}`, edge, y + 30, { fill: 'var(--d3)' })
    if (lane.asked.shiftDays !== 0)
      line(`thin: ${Math.abs(lane.asked.shiftDays)} days before`, edge, y + 46, { fill: 'var(--second)' })
    const found = drawings.find(({ dataset }) => dataset['lane'] === laneKey(lane.asked))
    const drawn = found?.cloneNode(true) as SVGSVGElement | undefined
    if (drawn === undefined) return
    const place = { x: labelWidth + edge, y, width: laneWidth, height: laneHeight }
    for (const [name, value] of Object.entries(place)) drawn.setAttribute(name, `${value}`)
    drawn.removeAttribute('class')
    root.append(drawn)
  })
  page.events.forEach(({ at, words }, index) =>
    line(`${hourWords(at)}  ${words}`, labelWidth + edge, eventsAt + (index + 1) * lineHeight),
  )
  return withColours(new XMLSerializer().serializeToString(root))
}

/** Made by the document, so that whatever a name has in it stays text. */
function element(name: string, attributes: Readonly<Record<string, string | number>>, text = ''): SVGElement {
  const made = document.createElementNS(svg, name)
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, `${value}`)
  made.textContent = text
  return made
}

/** Colours of the page are known on it only: in the picture they stand as they are, by day or by night. */
function withColours(text: string): string {
  const own = getComputedStyle(document.documentElement)
  return text.replace(/var\((--[\w-]+)\)/g, (_, name: string) => own.getPropertyValue(name).trim() || 'currentColor')
}
