import fc from 'fast-check'
import { letThrough, underLimits, type SizedDemand } from '.'

const drive = { model: 'mmc', serviceSeconds: 0.005, servers: 1 } as const
const demand = (id: string, requestsPerSecond: number, more: Partial<SizedDemand> = {}): SizedDemand => ({
  id,
  requestsPerSecond,
  stationRequestsEach: 0.1,
  bytesPerSecond: requestsPerSecond * 8192,
  ...more,
})
const none = { requestsPerSecond: null, bytesPerSecond: null }

test.each([
  ['no limit', none, 1000],
  ['a limit above what is asked', { ...none, requestsPerSecond: 2000 }, 1000],
  ['a limit on requests', { ...none, requestsPerSecond: 300 }, 300],
  ['a limit on bytes, at the size that its requests have', { ...none, bytesPerSecond: 8192 * 250 }, 250],
  ['the stricter of both', { requestsPerSecond: 300, bytesPerSecond: 8192 * 250 }, 250],
])('%s', (_, limits, through) => expect(letThrough(demand('a', 1000), limits)).toBeCloseTo(through, 9))

test('a volume that moves nothing is not limited in bytes', () =>
  expect(letThrough(demand('a', 10, { bytesPerSecond: 0 }), { ...none, bytesPerSecond: 1 })).toBe(10))

test('the others gain what the limited one is kept from asking', () => {
  // 0.1 × (1000 + 500) × 5 ms = 0.75 busy; limited to 200: 0.35, so 5 ms ÷ 0.25 and 5 ms ÷ 0.65.
  const found = underLimits(drive, [demand('loud', 1000), demand('quiet', 500)], ['loud'], {
    ...none,
    requestsPerSecond: 200,
  })
  expect(found).toMatchObject({ askedPerSecond: 1000, passedPerSecond: 200, knee: 0.5 })
  expect(found.utilizationBefore).toBeCloseTo(0.75, 12)
  expect(found.utilizationAfter).toBeCloseTo(0.35, 12)
  expect(found.responseBefore).toBeCloseTo(0.02, 12)
  expect(found.responseAfter).toBeCloseTo(0.005 / 0.65, 12)
})

test('drives that were asked for more than they serve have no response until the limit brings them back', () => {
  const found = underLimits(drive, [demand('loud', 3000)], ['loud'], { ...none, requestsPerSecond: 1000 })
  expect(found.responseBefore).toBeNull()
  expect(found.responseAfter).toBeCloseTo(0.01, 12)
})

test('no limit ever makes the drives busier or lets more through, and one on a stranger alters nothing', () => {
  const rate = fc.option(fc.double({ min: 1, max: 1e5, noNaN: true }))
  const asked = fc.array(fc.double({ min: 0, max: 1e4, noNaN: true }), { minLength: 1, maxLength: 6 })
  fc.assert(
    fc.property(asked, rate, rate, (all, requestsPerSecond, bytesPerSecond) => {
      const demands = all.map((each, index) => demand(`${index}`, each))
      const limits = { requestsPerSecond, bytesPerSecond }
      const found = underLimits(drive, demands, ['0'], limits)
      expect(found.passedPerSecond).toBeLessThanOrEqual(found.askedPerSecond)
      expect(found.utilizationAfter).toBeLessThanOrEqual(found.utilizationBefore + 1e-12)
      const stranger = underLimits(drive, demands, ['nobody'], limits)
      expect(stranger.utilizationAfter).toBe(stranger.utilizationBefore)
    }),
  )
})

test('a limit on several counts for each of them, and what they leave is left by all', () => {
  const demands = [demand('loud', 1000), demand('louder', 2000), demand('quiet', 50)]
  const found = underLimits(drive, demands, ['loud', 'louder', 'quiet'], { ...none, requestsPerSecond: 100 })
  expect([found.askedPerSecond, found.passedPerSecond]).toEqual([3050, 250])
  const one = underLimits(drive, demands, ['louder'], { ...none, requestsPerSecond: 100 })
  expect(found.utilizationAfter).toBeLessThan(one.utilizationAfter)
})
