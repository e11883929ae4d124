/** @jest-environment jsdom */
import { fireEvent, screen, within } from '@testing-library/react'
import type { Outlook } from '@/core/capacity'
import { sampleId, samplePool } from '@/core/estate/testing/samples'
import { dailyLevels } from '@/core/metrics'
import type { PoolGrowth } from '@/core/views'
import { GrowthChart } from '../../drawings/growth'
import { shown, wordsOf } from '../../testing/browser'
import { capacitySentence, Growers, PoolDue, PoolsByDate } from '.'
import { dueRange, dueState, dueWords } from './dueWords'
import { growthWords } from './growthWords'

const day = 86_400_000
const today = Date.UTC(2026, 10, 23)
const tebibyte = 2 ** 40
const outlook = (p50: number | null, more: Partial<Outlook> = {}): Outlook => ({
  ...{ today, usedBytes: 80 * tebibyte, limitBytes: 90 * tebibyte, fullBytes: 100 * tebibyte },
  ...{ slopeBytesPerDay: 0.4 * tebibyte, windowDays: 56, stepAt: null, held: 10, tried: 12 },
  reachesLimit: { p10: p50 === null ? null : p50 + 5, p50, p90: p50 === null ? null : p50 - 4 },
  reachesFull: { p10: null, p50: p50 === null ? null : p50 + 25, p90: null },
  fan: [1, 60, 365, 1095].map(daysAhead => ({
    daysAhead,
    p10: (80 + 0.35 * daysAhead) * tebibyte,
    p50: (80 + 0.4 * daysAhead) * tebibyte,
    p90: (80 + 0.5 * daysAhead) * tebibyte,
  })),
  ...more,
})
const known = dailyLevels(
  [0, 1, 2, 4, 5].map(index => ({ at: today - (5 - index) * day, value: (78 + index * 0.4) * tebibyte })),
)
if (known === undefined) throw new Error('There are levels.')
const levels = known
const growth = (more: Partial<PoolGrowth> = {}): PoolGrowth => ({
  pool: samplePool({ id: sampleId(1), name: 'bulk' }),
  systemName: 'bittern',
  outlook: outlook(25),
  levels,
  growers: [],
  ways: [],
  composition: [],
  ...more,
})

test('when a limit is reached is a date, and how grave that is a word', () => {
  expect(dueWords(outlook(25))).toBe('18 December 2026')
  expect(dueRange(outlook(25))).toBe('14 December – 23 December')
  expect(dueRange(outlook(400))).toBe('24 December 2027 – 2 January 2028')
  expect(dueState(outlook(25))).toEqual({ gravity: 'soon', words: 'act soon' })
  expect(dueState(outlook(200)).gravity).toBe('fine')
  expect(dueWords(outlook(null))).toBe('not within 3 years')
  expect(dueRange(outlook(null))).toBeUndefined()
  const past = outlook(0, { usedBytes: 95 * tebibyte })
  expect([dueWords(past), dueState(past).gravity]).toEqual(['past it', 'now'])
  const young = { ...outlook(null), why: 'too few days' as const }
  expect([dueWords(young), dueState(young).gravity]).toEqual(['too few days', 'unknown'])
  expect(dueWords(undefined)).toBe('nothing measured yet')
})

test('growth has a sign, and what is next to nothing has none', () =>
  expect([growthWords(2 ** 30), growthWords(-3 * 2 ** 30), growthWords(1000)]).toEqual(['+1 GiB', '−3 GiB', '0']))

test('the sentence names what is past, what comes first, and adds all pools up', () => {
  const at = (name: string, found: Outlook | undefined) => ({
    ...{ pool: samplePool({ name, writtenBytes: 2n ** 40n }), systemName: 's', outlook: found },
  })
  const past = outlook(0, { usedBytes: 95 * tebibyte })
  expect(capacitySentence([at('a', past), at('b', outlook(25)), at('c', outlook(90))]).first).toBe(
    'One pool is past the limit, and b reaches its limit on 18 December 2026.',
  )
  expect(capacitySentence([at('a', outlook(null)), at('b', undefined)]).first).toBe(
    'No pool reaches its limit within three years.',
  )
  expect(capacitySentence([at('a', undefined), at('b', undefined)]).then).toContain('2 TiB written')
})

test('pools stand with their past and their date, and lead to themselves', () => {
  const rows = [growth(), growth({ pool: samplePool({ id: sampleId(2), name: 'fast' }), outlook: undefined })]
  shown(<PoolsByDate pools={rows} levels={new Map([[sampleId(1), levels]])} selected={sampleId(1)} />)
  const [bulk, fast] = screen.getAllByRole('row').slice(1)
  expect(wordsOf(bulk as HTMLElement)).toContain('18 December 2026')
  expect(wordsOf(fast as HTMLElement)).toContain('nothing measured yet')
  expect(screen.getByRole('link', { name: 'bulk' }).getAttribute('href')).toBe(`/watch?sel=${sampleId(1)}`)
})

test('the chart reads any day by the arrow keys: measured, missed, and likely', () => {
  shown(<GrowthChart name="bulk" levels={levels} outlook={outlook(25)} />)
  const chart = screen.getByRole('slider')
  expect(chart.getAttribute('aria-label')).toBe(
    'bulk: 78 TiB 6 days ago, 80 TiB today; its limit is reached in 25 days',
  )
  const read = (key: string) => {
    fireEvent.keyDown(chart, { key })
    return chart.getAttribute('aria-valuetext')
  }
  expect(read('ArrowLeft')).toBe('Sun, Nov 22: 79.6 TiB')
  expect(read('ArrowLeft')).toBe('Sat, Nov 21: nothing was measured')
  read('PageDown')
  expect(read('PageDown')).toBe('Sat, Dec 5: 84.8 TiB is likely, between 84.2 TiB and 86 TiB')
  for (let week = 0; week < 20; week += 1) read('PageUp')
  expect(read('PageUp')).toBe('Wed, Nov 18: 78 TiB')
  expect(read('Escape')).toBe('Arrow keys read a day')
})

test('who grows is told with how fast; where nobody does, that is said', () => {
  const grower = (id: string, bytesPerDay: number) => ({ id, name: id, writtenBytes: 1, bytesPerDay })
  const { unmount } = shown(
    <Growers
      growers={[grower('raw', 2 ** 37), grower('homes', 2 ** 33), grower('still', 5)]}
      wholeBytesPerDay={2 ** 38}
    />,
  )
  expect(screen.getAllByRole('listitem').map(each => wordsOf(each))).toEqual(['raw+128 GiB', 'homes+8 GiB'])
  expect(screen.getByText('+256 GiB')).toBeTruthy()
  unmount()
  shown(<Growers growers={[grower('still', 0)]} wholeBytesPerDay={undefined} />)
  expect(screen.getByText('No volume of it has grown.')).toBeTruthy()
})

test('each way out stands with its bytes, the day that it gives, and its draft; and what comes if nothing is done', () => {
  const ways = [
    { title: 'Move homes to fast', why: 'Hosts go on.', bytes: 4 * tebibyte, bytesPerDay: 0, href: '/provision?x' },
    { title: 'Move raw to fast', why: 'Hosts go on.', bytes: 0, bytesPerDay: 0.4 * tebibyte, href: '/provision?y' },
  ]
  shown(<PoolDue growth={growth({ ways })} />)
  const [homes, raw] = screen.getAllByText(/^Move/).map(each => each.parentElement?.parentElement as HTMLElement)
  // 80 + 0.4 d − 4 = 90 after 35 days.
  expect(wordsOf(homes as HTMLElement)).toContain('28 December 2026')
  expect(wordsOf(raw as HTMLElement)).toContain('beyond 3 years')
  expect(
    within(homes as HTMLElement)
      .getByRole('link', { name: 'Draft' })
      .getAttribute('href'),
  ).toBe('/provision?x')
  expect(screen.getByText('10 of 12 such forecasts held')).toBeTruthy()
  expect(screen.getByText(/all of it is written/).parentElement?.textContent).toContain('12 January 2027')
})

test('what if is told at once, and a number that is none moves no day', async () => {
  const pool = samplePool({ id: sampleId(1), usableBytes: BigInt(100 * tebibyte), groupSizes: [11, 11, 11, 11] })
  const { user } = shown(<PoolDue growth={growth({ pool })} />)
  await user.click(screen.getByRole('button', { name: 'What if …' }))
  const told = () => screen.getByText(/^Nine tenths would be written/).textContent
  expect(told()).toContain('18 December 2026')
  const growing = screen.getByLabelText('Growth (percent)')
  fireEvent.change(growing, { target: { value: '200' } })
  expect(told()).toContain('6 December 2026')
  fireEvent.change(screen.getByLabelText('Spared by reduction (percent)'), { target: { value: '100' } })
  expect(told()).toContain('not within 3 years')
  fireEvent.change(growing, { target: { value: '' } })
  expect(screen.getByText('Give whole numbers: then the day is told.')).toBeTruthy()
  expect(screen.getByText(/^of 11 drives/)).toBeTruthy()
})

test('of a pool that nobody has measured long enough nothing is promised', () => {
  shown(<PoolDue growth={growth({ outlook: { ...outlook(null), why: 'too few days since a step' } })} />)
  expect(screen.getByText('too few days since a step')).toBeTruthy()
  expect(screen.queryByText(/Ways to a later day/)).toBeNull()
})
