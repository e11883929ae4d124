import { giveBack } from './giveBack'

test('what nobody holds any more is given back, each time it is asked for', () => {
  for (let turn = 0; turn < 2; turn += 1) {
    let held: unknown = Array.from({ length: 400_000 }, (_, index) => ({ index, turn }))
    expect(held).toHaveLength(400_000)
    const before = process.memoryUsage().heapUsed
    held = undefined
    giveBack()
    expect(before - process.memoryUsage().heapUsed).toBeGreaterThan(4_000_000)
    expect(held).toBeUndefined()
  }
})
