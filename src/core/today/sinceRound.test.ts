import { sinceRoundWords, type SinceRound } from './sinceRound'

const since = (more: Partial<SinceRound> = {}): SinceRound => ({
  round: { id: 'r', at: '2026-05-04T08:00:00.000Z', madeBy: 'keeper', note: '' },
  proven: 0,
  unproven: 0,
  stopped: 0,
  newFindings: 0,
  clearedFindings: 0,
  writtenBytes: 0n,
  ...more,
})

test('what has become otherwise is told, the gravest first, and nothing where nothing has', () => {
  expect(sinceRoundWords(since())).toBeUndefined()
  expect(sinceRoundWords(since({ proven: 1 }))).toBe('one change was carried out and proven')
  expect(sinceRoundWords(since({ proven: 3, newFindings: 1, stopped: 2, clearedFindings: 2, unproven: 1 }))).toBe(
    'one finding is new, one change could not be proven, two changes stopped or failed, two findings have gone and three changes were carried out and proven',
  )
  expect(sinceRoundWords(since({ writtenBytes: 3n << 40n }))).toBe('3 TiB more is written')
  expect(sinceRoundWords(since({ writtenBytes: -(1n << 30n) }))).toBe('1 GiB less is written')
})
