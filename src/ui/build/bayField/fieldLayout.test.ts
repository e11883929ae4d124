import fc from 'fast-check'
import { sampleDrive } from '@/core/estate/testing/samples'
import { cellFinder, cellsTouched, fieldLayout, readBays, type BayGroup } from './fieldLayout'

const group = (id: string, bayCount: number, baysPerRow: number): BayGroup => ({
  id,
  title: id,
  note: '',
  bayCount,
  baysPerRow,
  drives: [sampleDrive(1, { bay: 1 })],
})

test('bays never overlap and stay inside the width, whatever stands beside each other', () => {
  const fields = fc.record({
    shapes: fc.array(fc.tuple(fc.integer({ min: 1, max: 48 }), fc.constantFrom(4, 6, 8, 24)), {
      minLength: 1,
      maxLength: 9,
    }),
    width: fc.integer({ min: 520, max: 1600 }),
  })
  fc.assert(
    fc.property(fields, ({ shapes, width }) => {
      const { cells, height } = fieldLayout(
        shapes.map(([count, perRow], index) => group(`g${index}`, count, perRow)),
        width,
      )
      const apart = (a: (typeof cells)[number], b: (typeof cells)[number]) =>
        a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y
      expect(cells.every(cell => cell.x + cell.width <= width + 0.01 && cell.y + cell.height <= height)).toBe(true)
      expect(cells.every((cell, index) => cells.slice(index + 1).every(other => apart(cell, other)))).toBe(true)
    }),
    { numRuns: 40 },
  )
})

test('the finder agrees with looking at every bay', () => {
  const { cells } = fieldLayout([group('a', 24, 24), group('b', 12, 4), group('c', 12, 4)], 780)
  const find = cellFinder(cells)
  fc.assert(
    fc.property(fc.integer({ min: -5, max: 800 }), fc.integer({ min: -5, max: 300 }), (x, y) => {
      expect(find(x, y)).toBe(
        cells.find(cell => x >= cell.x && x <= cell.x + cell.width && y >= cell.y && y <= cell.y + cell.height),
      )
    }),
  )
})

test('a dragged rectangle takes what it touches, from whichever corner it is drawn', () => {
  const { cells } = fieldLayout([group('a', 8, 4)], 780)
  const [first, , , fourth, fifth] = cells
  const from = { x: (first?.x ?? 0) + 5, y: (first?.y ?? 0) + 5 }
  const to = { x: (fourth?.x ?? 0) + 5, y: (first?.y ?? 0) + 10 }
  expect(cellsTouched(cells, from, to).map(cell => cell.bay)).toEqual([1, 2, 3, 4])
  expect(cellsTouched(cells, to, from)).toEqual(cellsTouched(cells, from, to))
  expect(cellsTouched(cells, from, { x: from.x, y: (fifth?.y ?? 0) + 5 }).map(cell => cell.bay)).toEqual([1, 5])
})

test.each([
  ['1-8', [1, 2, 3, 4, 5, 6, 7, 8]],
  ['1 – 2, 11', [1, 2, 11]],
  ['7', [7]],
])('bays are read: %s', (text, bays) => expect([...(readBays(text) ?? [])]).toEqual(bays))
test.each(['', '8-1', 'a', '1-', '1;2', '1-9999'])('bays cannot be read: "%s"', text =>
  expect(readBays(text)).toBeUndefined(),
)
