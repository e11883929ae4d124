/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import type { Outlook } from '@/core/capacity'
import { sampleId, samplePool } from '@/core/estate/testing/samples'
import { dailyLevels } from '@/core/metrics'
import type { PoolFilling } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
import { AgainstPromise, FirstToFill } from '.'

const day = 86_400_000
const today = Date.UTC(2026, 10, 23)
const tebibyte = 2 ** 40
const outlook = (p50: number | null): Outlook => ({
  ...{ today, usedBytes: 80 * tebibyte, limitBytes: 90 * tebibyte, fullBytes: 100 * tebibyte },
  ...{ slopeBytesPerDay: 0.4 * tebibyte, windowDays: 56, stepAt: null, held: 10, tried: 12 },
  ...{ reachesLimit: { p10: null, p50, p90: null }, reachesFull: { p10: null, p50: null, p90: null } },
  fan: [1, 60].map(daysAhead => ({ daysAhead, p10: 80 * tebibyte, p50: 82 * tebibyte, p90: 84 * tebibyte })),
})
const known = dailyLevels([0, 1, 2].map(index => ({ at: today - (2 - index) * day, value: (78 + index) * tebibyte })))
if (known === undefined) throw new Error('There are levels.')
const levels = known

test('the pool that fills first is drawn with what its drawing says, and the next two stand below it', () => {
  const at = (number: number, found: Outlook | undefined): PoolFilling => ({
    ...{ pool: samplePool({ id: sampleId(number), name: `pool-${number}` }), systemName: 'bittern', outlook: found },
  })
  const { unmount } = shown(
    <FirstToFill
      pools={[at(1, outlook(55)), at(2, undefined), at(3, outlook(90)), at(4, outlook(null))]}
      levels={levels}
    />,
  )
  expect(screen.getByRole('img').getAttribute('aria-label')).toContain('its limit is reached in 55 days')
  // The day stands within the picture, however late it is.
  expect(screen.getByText('Sun, Jan 17').getAttribute('text-anchor')).toBe('end')
  expect(screen.getAllByRole('link').map(each => wordsOf(each.parentElement as HTMLElement))).toEqual([
    ...['pool-117 January 2027', 'pool-321 February 2027', 'pool-4not within 3 years'],
  ])
  unmount()
  shown(<FirstToFill pools={[at(2, undefined)]} levels={levels} />)
  expect(screen.queryByRole('figure')).toBeNull()
})

test('a bar reaches beyond the mark where a promise is missed, and never out of its line', () => {
  const at = (id: number, p95Seconds: number) => ({
    ...{ id: sampleId(id), name: `volume-${id}`, p95Seconds, promisedSeconds: 0.004 },
  })
  const { unmount } = shown(<AgainstPromise lines={[at(1, 0.4), at(2, 0.0036), at(3, 0.002)]} />)
  const rows = screen.getAllByRole('listitem')
  expect(rows.map(each => wordsOf(each))).toEqual([
    ...['volume-1400 of 4 ms', 'volume-23.60 of 4 ms', 'volume-32.00 of 4 ms'],
  ])
  const bars = rows.map(each => each.querySelectorAll('i')[1]?.getAttribute('style'))
  expect(bars[0]).toMatch(/width: 100%.*--now/)
  expect(bars[1]).toMatch(/width: 6[23].*--soon/)
  expect(bars[2]).toMatch(/width: 35.*--fine/)
  unmount()
  shown(<AgainstPromise lines={[]} />)
  expect(screen.getByRole('link', { name: 'A service class' })).toBeTruthy()
})
