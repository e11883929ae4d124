/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { useEffect } from 'react'
import type { PlacementSketch } from '@/core/plan'
import { SheetSketch, useSheetSketch } from '../../drafts/SheetSketch'
import { shown, wordsOf } from '../../testing/browser'
import { PlacementBoard } from '.'
import { placementLines } from './placementLines'

const measures = [
  { measure: 'room', words: 'Room afterwards', of: 60 },
  { measure: 'cost', words: 'Cost of a TiB', of: 40 },
]
const ranked = (name: string, room: number, cost: number, out: readonly string[] = []) => ({
  id: name,
  name,
  score: room * 60 + cost * 40,
  out,
  parts: [
    { measure: 'room', place: room, points: room * 60, words: `${room * 100} TiB free`, least: 0.25 },
    { measure: 'cost', place: cost, points: cost * 40, words: 'cheap', least: null },
  ],
})
const sketch = (pools: PlacementSketch['pools'], chosenId: string | null = null): PlacementSketch => ({
  of: 'placement',
  chosenId,
  measures,
  pools,
})

function Drafted({ of }: { readonly of: PlacementSketch }) {
  const { show } = useSheetSketch()
  useEffect(() => show(of), [of, show])
  return null
}
const drawn = (of: PlacementSketch) =>
  shown(
    <SheetSketch>
      <Drafted of={of} />
      <PlacementBoard />
    </SheetSketch>,
  )

test('the best place stands with its score opened, beside the second, and says what decides', () => {
  drawn(
    sketch(
      [ranked('heron', 0.9, 0.5), ranked('curlew', 0.4, 0.5), ranked('bittern', 0.1, 1, ['of HDD, SSD promised'])],
      'heron',
    ),
  )
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe('heron scores 74 of 100')
  const words = wordsOf(screen.getByRole('figure'))
  expect(words).toContain('Room afterwards decides for it most.')
  expect(words).toContain('542460')
  expect(words).toContain('7444100')
  expect(wordsOf(screen.getByRole('row'))).toBe('[now] bitternof HDD, SSD promised')
})

test('a pool that was chosen by hand against the score says what speaks against it', () => {
  drawn(sketch([ranked('heron', 0.9, 0.5), ranked('curlew', 0.4, 0.5)], 'curlew'))
  expect(screen.getByText('Room afterwards decides against it most.')).toBeTruthy()
})

test('where no pool can be the place each says why, and many are counted', () => {
  drawn(sketch(Array.from({ length: 10 }, (_, index) => ranked(`pool-${index}`, 0.1, 0.1, ['it is full']))))
  expect(screen.getByText('No pool can be the place.')).toBeTruthy()
  expect(screen.getAllByRole('row')).toHaveLength(8)
  expect(screen.getByText(/two other pools that cannot be it/)).toBeTruthy()
})

test('threads pass the measures in their order, worse at the left; what is promised is a mark', () => {
  const { lanes, threads } = placementLines(sketch([ranked('a', 0, 1), ranked('b', 1, 0)]))
  expect(threads.map(({ points }) => points.map(({ x }) => Math.round(x)))).toEqual([
    [1, 99],
    [99, 1],
  ])
  expect(lanes.map(({ least }) => (least === null ? null : Math.round(least)))).toEqual([26, null])
  expect((lanes[1]?.y ?? 0) > (lanes[0]?.y ?? 0)).toBe(true)
})
