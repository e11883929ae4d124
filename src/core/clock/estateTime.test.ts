import { estateTime } from '.'

test('an estate whose clocks run sixty times as fast is a minute further after a second', () => {
  const clock = { wallAt: '2026-03-01T10:00:00.000Z', estateAt: '2026-03-05T08:00:00.000Z', rate: 60 }
  expect(estateTime(clock, new Date('2026-03-01T10:00:01Z')).toISOString()).toBe('2026-03-05T08:01:00.000Z')
  expect(estateTime({ ...clock, rate: 0 }, new Date('2026-03-02T10:00:01Z')).toISOString()).toBe(clock.estateAt)
})
