/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react'
import type { ReactElement } from 'react'
import { readBoard, type Board } from '@/core/board'
import { sampleId } from '@/core/estate/testing/samples'
import type { BoardPage, Lane, SeriesNamed } from '@/core/views'
import { answering, choose, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { boardPicture } from './boardPicture'
import { boardCsv } from './BoardTools'
import { LaneDrawing } from './LaneDrawing'
import { lagWords, valueWords } from './seriesWords'
import { AddLane, BoardLanes, LaneMargin, OneBoard } from '.'

const hour = 3_600_000
const from = Date.UTC(2026, 4, 4)
const steps = 48
const named = (number: number, metric: SeriesNamed['metric'] = 'latency'): SeriesNamed => ({
  metric,
  objectId: sampleId(number),
  kind: 'volumes',
  name: `volume-${number}`,
})
const asked = (number: number, more: object = {}) => ({
  ...{ metric: 'latency' as const, objectId: sampleId(number), over: null, shiftDays: 0, isUsualShown: false },
  ...more,
})
const lane = (number: number, more: Partial<Lane> = {}): Lane => ({
  asked: asked(number),
  of: named(number),
  values: Array.from({ length: steps }, (_, step) => (step === 5 ? null : 0.001 * (step + 1))),
  extremes: null,
  over: null,
  shifted: null,
  usual: null,
  left: [],
  ...more,
})
const page = (more: Partial<BoardPage> = {}): BoardPage => ({
  from,
  until: from + steps * hour,
  times: Array.from({ length: steps }, (_, step) => from + (step + 0.5) * hour),
  lanes: [lane(1), lane(2)],
  events: [
    { at: from + 10 * hour, until: null, kind: 'change', gravity: 'fine', words: 'Move volume-1', href: '/changes/x' },
  ],
  moving: [],
  ...more,
})
const board = (more: Partial<Board> = {}): Board => ({
  lanes: [asked(1), asked(2)],
  hours: steps,
  until: null,
  chosen: null,
  ...more,
})
const on = (asked: Board, part: ReactElement) => shown(<OneBoard board={asked}>{part}</OneBoard>, '/watch/board')
const latest = () => readBoard(Object.fromEntries(new URLSearchParams(pushed.at(-1)?.replace(/^.*\?/, ''))))

test('one cursor reads every lane, by keys too; a gap is said to be one', () => {
  on(board(), <BoardLanes page={page()} />)
  const slider = screen.getByRole('slider')
  fireEvent.keyDown(slider, { key: 'ArrowLeft' })
  expect(slider.getAttribute('aria-valuetext')).toContain('volume-1 47.0 ms')
  for (let press = 0; press < 41; press += 1) fireEvent.keyDown(slider, { key: 'ArrowLeft' })
  expect(slider.getAttribute('aria-valuetext')).toContain('volume-1 not measured')
  fireEvent.keyDown(slider, { key: 'Escape' })
  expect(slider.getAttribute('aria-valuetext')).toContain('Arrow keys')
})

test('plus looks closer about the cursor, minus farther, shift with an arrow elsewhere', () => {
  on(board(), <BoardLanes page={page()} />)
  const slider = screen.getByRole('slider')
  fireEvent.keyDown(slider, { key: '+' })
  expect(latest()).toMatchObject({ hours: 24, until: from + 36 * hour })
  fireEvent.keyDown(slider, { key: '-' })
  expect(latest()).toMatchObject({ hours: 96 })
  fireEvent.keyDown(slider, { key: 'ArrowLeft', shiftKey: true })
  expect(latest()).toMatchObject({ hours: 48, until: from + 36 * hour })
})

test('a lane is chosen by its name, and what happened to its objects stands beneath all', () => {
  on(board(), <BoardLanes page={page()} />)
  expect(screen.getByRole('link', { name: 'volume-2' }).getAttribute('href')).toContain('lane=1')
  expect(screen.getByRole('link', { name: 'Move volume-1' }).getAttribute('href')).toBe('/changes/x')
})

test('the chosen lane says what it moves with, when it left its band, and can be laid over another or taken off', async () => {
  const moving = [
    { of: named(2), strength: 0.92, lagMinutes: 64, isTold: true, byLag: [0, 0.92, 0] },
    { of: named(3, 'requests'), strength: -0.1, lagMinutes: 0, isTold: false, byLag: [0, -0.1, 0] },
  ]
  const usual = { low: Array.from({ length: steps }, () => 0), high: Array.from({ length: steps }, () => 0.01) }
  const left = [{ from: 10, to: 20, side: 'above' as const }]
  const { user } = on(
    board({ chosen: 0 }),
    <LaneMargin index={0} page={page({ moving, lanes: [lane(1, { usual, left }), lane(2)] })} />,
  )
  expect(screen.getByText('follows 64 min later')).toBeTruthy()
  expect(screen.getByText('too weak to tell')).toBeTruthy()
  expect(screen.getByText('above')).toBeTruthy()
  expect(screen.getByRole('link', { name: 'volume-3, requests' }).getAttribute('href')).toContain(sampleId(3))
  await user.click(screen.getByRole('checkbox'))
  expect(latest().lanes[0]?.isUsualShown).toBe(true)
  await user.click(screen.getByRole('button', { name: 'Down' }))
  expect(latest()).toMatchObject({ chosen: 1, lanes: [{ objectId: sampleId(2) }, { objectId: sampleId(1) }] })
  await user.click(screen.getByRole('button', { name: 'Take it off' }))
  expect(latest()).toMatchObject({ chosen: null, lanes: [{ objectId: sampleId(2) }] })
})

test('what is laid over it can have a scale of its own, and has where its unit is another', async () => {
  const over = { metric: 'latency' as const, objectId: sampleId(2) }
  const lanes = [
    lane(1, { asked: asked(1, { over }), over: { of: named(2), values: [], extremes: null } }),
    lane(3, { of: named(3, 'written'), asked: asked(3, { metric: 'written' }) }),
  ]
  const compared = board({ chosen: 0, lanes: lanes.map(each => each.asked) })
  const { user } = on(compared, <LaneMargin index={0} page={page({ lanes })} />)
  // It has no lane of its own, and is named all the same.
  expect(screen.getByLabelText('Laid over it').textContent).toBe('volume-2, latency')
  await user.click(screen.getByRole('checkbox', { name: /scale of its own/ }))
  expect(latest().lanes[0]?.over).toEqual({ ...over, isOwnScale: true })
  await choose(user, screen.getByLabelText('Laid over it'), /volume-3/)
  expect(latest().lanes[0]?.over).toEqual({ metric: 'written', objectId: sampleId(3), isOwnScale: true })
})

test('a scale of its own is told at its ends, and changes nothing of the lane’s', () => {
  const values = Array.from({ length: steps }, (_, step) => 5 + step)
  const own = { metric: 'requests' as const, objectId: sampleId(2), isOwnScale: true }
  const laid = (over: object) =>
    render(
      <LaneDrawing
        lane={lane(1, { asked: asked(1, { over }), over: { of: named(2, 'requests'), values, extremes: null } })}
        cursor={undefined}
      />,
    )
  const { container } = laid(own)
  const words = [...container.querySelectorAll('text')].map(each => each.textContent)
  expect(words.slice(-2)).toEqual(['5.0/s', '52.0/s'])
  const alone = render(<LaneDrawing lane={lane(1)} cursor={undefined} />).container
  const path = (of: Element, colour: string) => of.querySelector(`path[stroke="var(--${colour})"]`)?.getAttribute('d')
  expect(path(container, 'ink')).toBe(path(alone, 'ink'))
  expect(path(laid({ ...own, isOwnScale: false }).container, 'ink')).not.toBe(path(alone, 'ink'))
})

test('the picture has every lane with its words and colours; a hostile name stays text', () => {
  document.documentElement.style.setProperty('--ink', '#23201b')
  const hostile = { ...named(1), name: '</text><script>alert(1)</script>' }
  const { container } = on(board(), <BoardLanes page={page({ lanes: [lane(1, { of: hostile }), lane(2)] })} />)
  const drawings = [...container.querySelectorAll<SVGSVGElement>('svg[data-lane]')]
  const picture = boardPicture(drawings, page({ lanes: [lane(1, { of: hostile }), lane(2)] }))
  const read = new DOMParser().parseFromString(picture, 'image/svg+xml')
  expect(read.querySelector('parsererror')).toBeNull()
  expect(read.querySelector('script')).toBeNull()
  expect(read.querySelectorAll('svg > svg')).toHaveLength(2)
  const words = [...read.querySelectorAll('svg > text')].map(each => each.textContent)
  expect(words).toEqual(
    expect.arrayContaining([expect.stringContaining('<script>'), expect.stringContaining('Move volume-1')]),
  )
  expect(picture).toContain('#23201b')
  expect(picture).not.toContain('var(--')
})

test('another series is found by name and put on the board', async () => {
  const hits = [
    { kind: 'volume', id: sampleId(7), name: 'photos-07', detail: '', systemId: null },
    { kind: 'change', id: 'x', name: 'photos', detail: '', systemId: null },
  ]
  answering(({ path }) => ({ body: { items: path.includes('photos') ? hits : [] } }))
  const { user } = on(board(), <AddLane />)
  await user.type(screen.getByLabelText('Put another series on it'), 'photos')
  const found = await screen.findByRole('link', { name: 'latency' })
  expect(found.getAttribute('href')).toContain(`latency.${sampleId(7)}`)
  // Snapshots are held by pools: a volume has no such series of its own.
  expect(screen.queryByRole('link', { name: 'held by snapshots' })).toBeNull()
  await user.clear(screen.getByLabelText('Put another series on it'))
  await user.type(screen.getByLabelText('Put another series on it'), 'none')
  expect(await screen.findByText('Nothing that is measured is called so.')).toBeTruthy()
})

test('what is chosen next rests on what was chosen last, before the server has answered either', async () => {
  const hits = [{ kind: 'volume', id: sampleId(7), name: 'photos-07', detail: '', systemId: null }]
  answering(() => ({ body: { items: hits } }))
  const { user } = on(
    board({ chosen: 1 }),
    <>
      <AddLane />
      <BoardLanes page={page()} />
      <LaneMargin index={1} page={page()} />
    </>,
  )
  await user.click(screen.getByRole('button', { name: 'Up' }))
  await user.type(screen.getByLabelText('Put another series on it'), 'photos')
  await user.click(await screen.findByRole('link', { name: 'latency' }))
  await user.click(screen.getByRole('checkbox'))
  expect(latest()).toMatchObject({
    chosen: 0,
    lanes: [{ objectId: sampleId(2), isUsualShown: true }, { objectId: sampleId(1) }, { objectId: sampleId(7) }],
  })
  expect(screen.getByText('latency: being read')).toBeTruthy()
})

test('a full board says so, and takes no more', () => {
  on(board({ lanes: Array.from({ length: 12 }, (_, number) => asked(number)) }), <AddLane />)
  expect(screen.getByText(/takes 12 lanes/)).toBeTruthy()
  expect(screen.getByLabelText('Put another series on it')).toHaveProperty('disabled', true)
})

test('what a mean hides is drawn, read and in the table', () => {
  const low = Array.from({ length: steps }, () => 0.0005)
  const high = Array.from({ length: steps }, (_, step) => (step === 47 ? 0.4 : 0.05))
  const hiding = page({ lanes: [lane(1, { extremes: { low, high } }), lane(2)] })
  const { container } = on(board(), <BoardLanes page={hiding} />)
  expect(container.querySelectorAll('path[data-extremes]')).toHaveLength(1)
  const slider = screen.getByRole('slider')
  fireEvent.keyDown(slider, { key: 'End' })
  for (const key of ['ArrowLeft', 'ArrowRight']) fireEvent.keyDown(slider, { key })
  expect(slider.getAttribute('aria-valuetext')).toContain('volume-1 48.0 ms (at most 400 ms)  volume-2 48.0 ms')
  expect(boardCsv(hiding).split('\r\n')[0]).toBe(
    'instant,"volume-1, latency","volume-1, latency, least","volume-1, latency, most","volume-2, latency"',
  )
})

test('what is laid over a lane, and what it was before, have their least and most too', () => {
  const extremes = (most: number) => ({ low: Array(steps).fill(0.0005), high: Array(steps).fill(most) })
  const values = Array.from({ length: steps }, () => 0.02)
  const laid = lane(1, {
    asked: asked(1, { shiftDays: -7 }),
    over: { of: named(3), values, extremes: extremes(0.3) },
    shifted: { values, extremes: extremes(0.2) },
  })
  const { container } = on(board(), <BoardLanes page={page({ lanes: [laid] })} />)
  expect(container.querySelectorAll('path[data-extremes]')).toHaveLength(2)
  expect(screen.getByText('shade: least to most')).toBeTruthy()
  expect(screen.getByText('thin: 7 days before')).toBeTruthy()
  // Its scale reaches to the most of both: at its end the scale's upper levels stand above what lies over it.
  expect([...container.querySelectorAll('text')].some(each => each.textContent === '300 ms')).toBe(true)
  expect(boardCsv(page({ lanes: [laid] })).split('\r\n')[0]).toBe(
    'instant,"volume-1, latency","volume-3, latency","volume-3, latency, least","volume-3, latency, most",' +
      '"volume-1, latency, 7 days before","volume-1, latency, 7 days before, least","volume-1, latency, 7 days before, most"',
  )
})

test('the table has an instant a line; values and lags say what they mean', () => {
  const lines = boardCsv(page()).split('\r\n')
  expect(lines[0]).toBe('instant,"volume-1, latency","volume-2, latency"')
  expect(lines[6]).toBe('2026-05-04T05:30:00.000Z,,')
  expect([valueWords('written', 2 ** 41), valueWords('requests', 12), valueWords('throughput', 2 ** 20)]).toEqual([
    '2 TiB',
    '12.0/s',
    '1 MiB/s',
  ])
  expect([lagWords(0.2), lagWords(-30), lagWords(180)]).toEqual([
    'at the same time',
    'goes 30 min before',
    'follows 3.0 h later',
  ])
})
