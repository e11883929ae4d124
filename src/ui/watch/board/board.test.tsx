/** @jest-environment jsdom */
import { fireEvent, screen } from '@testing-library/react'
import { readBoard, type Board } from '@/core/board'
import { sampleId } from '@/core/estate/testing/samples'
import type { BoardPage, Lane, SeriesNamed } from '@/core/views'
import { answering, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { boardCsv } from './BoardTools'
import { lagWords, valueWords } from './seriesWords'
import { AddLane, BoardLanes, LaneMargin } from '.'

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
const latest = () => readBoard(Object.fromEntries(new URLSearchParams(pushed.at(-1)?.replace(/^.*\?/, ''))))

test('one cursor reads every lane, by keys too; a gap is said to be one', () => {
  shown(<BoardLanes board={board()} page={page()} />, '/watch/board')
  const slider = screen.getByRole('slider')
  fireEvent.keyDown(slider, { key: 'ArrowLeft' })
  expect(slider.getAttribute('aria-valuetext')).toContain('volume-1 47.0 ms')
  for (let press = 0; press < 41; press += 1) fireEvent.keyDown(slider, { key: 'ArrowLeft' })
  expect(slider.getAttribute('aria-valuetext')).toContain('volume-1 not measured')
  fireEvent.keyDown(slider, { key: 'Escape' })
  expect(slider.getAttribute('aria-valuetext')).toContain('Arrow keys')
})

test('plus looks closer about the cursor, minus farther, shift with an arrow elsewhere', () => {
  shown(<BoardLanes board={board()} page={page()} />, '/watch/board')
  const slider = screen.getByRole('slider')
  fireEvent.keyDown(slider, { key: '+' })
  expect(latest()).toMatchObject({ hours: 24, until: from + 36 * hour })
  fireEvent.keyDown(slider, { key: '-' })
  expect(latest()).toMatchObject({ hours: 96 })
  fireEvent.keyDown(slider, { key: 'ArrowLeft', shiftKey: true })
  expect(latest()).toMatchObject({ hours: 48, until: from + 36 * hour })
})

test('a lane is chosen by its name, and what happened to its objects stands beneath all', () => {
  shown(<BoardLanes board={board()} page={page()} />, '/watch/board')
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
  const { user } = shown(
    <LaneMargin board={board({ chosen: 0 })} page={page({ moving, lanes: [lane(1, { usual, left }), lane(2)] })} />,
    '/watch/board',
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

test('another series is found by name and put on the board', async () => {
  const hits = [
    { kind: 'volume', id: sampleId(7), name: 'photos-07', detail: '', systemId: null },
    { kind: 'change', id: 'x', name: 'photos', detail: '', systemId: null },
  ]
  answering(({ path }) => ({ body: { items: path.includes('photos') ? hits : [] } }))
  const { user } = shown(<AddLane board={board()} />, '/watch/board')
  await user.type(screen.getByLabelText('Put another series on it'), 'photos')
  const found = await screen.findByRole('link', { name: 'latency' })
  expect(found.getAttribute('href')).toContain(`latency.${sampleId(7)}`)
  // Snapshots are held by pools: a volume has no such series of its own.
  expect(screen.queryByRole('link', { name: 'held by snapshots' })).toBeNull()
  await user.clear(screen.getByLabelText('Put another series on it'))
  await user.type(screen.getByLabelText('Put another series on it'), 'none')
  expect(await screen.findByText('No pool or volume is called so.')).toBeTruthy()
})

test('the table has an instant a line; values and lags say what they mean', () => {
  const lines = boardCsv(page()).split('\n')
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
