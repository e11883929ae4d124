import { bayGrid } from './bayGrid'

test('a shelf of twenty-four small drives is one row that fits', () => {
  const { places, isUpright } = bayGrid(24, 24, 700)
  expect(isUpright).toBe(true)
  expect(new Set(places.map(place => place.y)).size).toBe(1)
  const last = places.at(-1)
  expect((last?.x ?? 0) + (last?.width ?? 0)).toBeLessThanOrEqual(700)
})

test('twelve large drives stand in rows of four, none upon another', () => {
  const { places, height } = bayGrid(12, 4, 600)
  expect(new Set(places.map(place => place.y)).size).toBe(3)
  expect(places[4]?.x).toBe(0)
  expect((places.at(-1)?.y ?? 0) + (places.at(-1)?.height ?? 0)).toBe(height)
})
