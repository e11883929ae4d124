import { createRoot } from 'react-dom/client'
import { flushSync } from 'react-dom'
import { sampleDrive } from '@/core/estate/testing/samples'
import { BayField, type BayGroup } from '@/ui/build/bayField'

/** What the page tells the benchmark, in milliseconds. */
export interface BayTimes {
  readonly drives: number
  readonly firstPaint: number
  readonly hovers: readonly number[]
}

const enclosures = 42
const bays = 48
const groups: readonly BayGroup[] = Array.from({ length: enclosures }, (_, index) => ({
  id: `e${index}`,
  title: `shelf ${index}`,
  note: `${bays} drives`,
  bayCount: bays,
  baysPerRow: 12,
  drives: Array.from({ length: bays }, (_, bay) => sampleDrive(index * bays + bay, { bay: bay + 1 })),
}))

const tick = () =>
  new Promise<void>(resolve => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => resolve()
    port2.postMessage(undefined)
  })
/** A frame has been painted when the task after its animation frame runs. */
const painted = () => new Promise<void>(resolve => requestAnimationFrame(() => void tick().then(resolve)))

/** The canvas has its own height once it is drawn on; reading its pixels back would cost more than drawing them. */
const isDrawn = () => (document.querySelector('canvas')?.height ?? 0) > 400

/** Mounts the bays, waits until they are painted, and points at one after another; each time until its words stand there. */
export async function measure(): Promise<BayTimes> {
  const at = performance.now()
  const root = createRoot(document.body)
  flushSync(() => root.render(<BayField label="Bays" groups={groups} />))
  do await painted()
  while (!isDrawn())
  const firstPaint = performance.now() - at
  const field = document.querySelector('[data-field]')
  const told = document.querySelector('[aria-live]')
  const box = field?.getBoundingClientRect()
  const hovers: number[] = []
  for (let turn = 0; turn < 300 && box !== undefined; turn += 1) {
    const clientX = box.left + 20 + ((turn * 61) % (box.width - 60))
    const clientY = box.top + 40 + ((turn * 97) % (box.height - 80))
    const before = told?.textContent
    const began = performance.now()
    field?.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, clientX, clientY }))
    for (let wait = 0; wait < 50 && told?.textContent === before; wait += 1) await tick()
    if (told?.textContent !== before) hovers.push(performance.now() - began)
  }
  return { drives: enclosures * bays, firstPaint, hovers }
}

Object.assign(window, { measure })
