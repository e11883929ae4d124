import { ladderBars } from './ladderBars'

test('each rung ends where what it took begins, and both fill the rung above', () => {
  const [raw, after] = ladderBars(
    [
      { name: 'raw', bytes: '100', takenBytes: '0', sum: [] },
      { name: 'after spares', bytes: '75', takenBytes: '25', sum: [] },
    ],
    400,
    100,
  )
  expect(raw).toMatchObject({ width: 400, takenWidth: 0 })
  expect(after).toMatchObject({ width: 300, takenX: 300, takenWidth: 100 })
  expect((after?.y ?? 0) > (raw?.y ?? 0)).toBe(true)
})

test('an empty ladder has no length, not an endless one', () => {
  expect(ladderBars([{ name: 'raw', bytes: '0', takenBytes: '0', sum: [] }], 400, 20)[0]?.width).toBe(0)
})
