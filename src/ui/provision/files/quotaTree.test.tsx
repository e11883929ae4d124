/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleShare } from '@/core/estate/testing/samples'
import type { Share } from '@/core/estate'
import { shown, wordsOf } from '../../testing/browser'
import { QuotaTree } from '.'

const day = 86_400_000
const now = Date.UTC(2026, 4, 20)
const quota = (
  path: string,
  of: 'tree' | 'each directory',
  hardBytes: string | null,
  softBytes: string | null = null,
) => ({
  ...{ path, of, id: null, softBytes, hardBytes, graceDays: 7 },
})
const used = (index: number, key: string, usedBytes: string, overSoftSince: string | null = null) => ({
  ...{ index, key, usedBytes, overSoftSince },
})
const share = (more: Partial<Share> = {}) =>
  sampleShare({
    ...{ name: 'staff-homes', sizeBytes: 32_000n, usedBytes: 28_200n },
    quotas: [quota('/departments', 'tree', '20000', '18000'), quota('/departments/sound', 'tree', '4000')],
    quotaUsage: [
      used(0, '/departments', '19100', new Date(now - 4 * day).toISOString()),
      used(1, '/departments/sound', '2700'),
    ],
    ...more,
  })
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map(row => wordsOf(row))

test('each directory stands with what is left of it, and whose limit stops it', () => {
  const { container } = shown(<QuotaTree share={share()} now={now} />)
  expect(wordsOf(container)).toContain(
    'All of them can still be written to. One is stopped by what lies above before its own limit.',
  )
  expect(rows()).toEqual([
    'staff-homes27.5 KiB–31.3 KiB3.71 KiBitself',
    expect.stringMatching(/^departments18.7 KiB17.6 KiB19.5 KiB900 B.*itself.*over soft.*three days left$/),
    'sound2.64 KiB–3.91 KiB900 Bdepartments',
  ])
})

test('a grace that is over stops a directory, and what lies beneath it', () => {
  const { container } = shown(<QuotaTree share={share()} now={now + 3 * day} />)
  expect(wordsOf(container)).toContain('Two directories take nothing more.')
  expect(wordsOf(container)).toContain('its grace is over')
})

test('of many siblings the fullest are shown, and how many more there are is said', () => {
  const many = share({
    quotas: [quota('/people', 'each directory', '500')],
    quotaUsage: Array.from({ length: 40 }, (_, index) => used(0, `/people/p${index}`, `${index}`)),
  })
  const { container } = shown(<QuotaTree share={many} now={now} />)
  expect(rows()).toHaveLength(14)
  expect(rows()[1]).toMatch(/^people\/p39/)
  expect(wordsOf(container)).toContain('and 28 further directories with less in them')
})

test('hostile names stay text, and each bar has a pattern of its own', () => {
  const hostile = share({ quotas: [quota('/<img src=x>', 'tree', '500')], quotaUsage: [used(0, '/<img src=x>', '5')] })
  const { container } = shown(<QuotaTree share={hostile} now={now} />)
  expect(container.querySelector('img')).toBeNull()
  const ids = [...container.querySelectorAll('pattern')].map(({ id }) => id)
  expect(new Set(ids).size).toBe(ids.length)
})

test('a share whose directories nothing limits has no tree', () => {
  const { container } = shown(<QuotaTree share={share({ quotas: [], quotaUsage: [] })} now={now} />)
  expect(container.textContent).toBe('')
})
