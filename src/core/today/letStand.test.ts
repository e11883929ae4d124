import { letStand, type TodayFinding } from '.'

const finding = (key: string): TodayFinding => ({
  ...{ key, gravity: 'soon', what: `${key} is so`, why: '', remedy: '', href: '/' },
})
const exception = (findingKey: string, until: string, gravity: 'soon' | 'now' | null = null) => ({
  ...{ findingKey, until, gravity, reason: 'known', signedBy: 'keeper' },
})
const now = new Date('2026-11-27T12:00:00Z')

test('what is let stand calls for nobody until its day is over', () => {
  const all = [finding('full/1'), finding('due/2'), finding('slow')]
  const signed = [exception('full/1', '2026-12-24T23:59:59Z'), exception('due/2', '2026-11-27T11:59:59Z')]
  const { open, stood } = letStand(all, signed, now)
  expect(open.map(({ key }) => key)).toEqual(['due/2', 'slow'])
  expect(stood).toMatchObject([{ key: 'full/1', exception: { signedBy: 'keeper' } }])
  expect(letStand(all, signed, new Date('2027-01-01T00:00:00Z')).stood).toEqual([])
})

test('what has become graver than it was when somebody signed calls for somebody again', () => {
  const until = '2026-12-24T23:59:59Z'
  const open = (found: 'soon' | 'now', signed: 'soon' | 'now' | null) =>
    letStand([{ ...finding('full/1'), gravity: found }], [exception('full/1', until, signed)], now).open.length
  expect([open('soon', 'soon'), open('now', 'soon'), open('soon', 'now'), open('now', null)]).toEqual([0, 1, 0, 0])
})

test('that nothing looks at the estate can stand for nobody', () => {
  const { open } = letStand([finding('no-worker')], [exception('no-worker', '2027-01-01T00:00:00Z')], now)
  expect(open.map(({ key }) => key)).toEqual(['no-worker'])
})
