/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleId, samplePool } from '@/core/estate/testing/samples'
import { shown, wordsOf } from '../../testing/browser'
import { PoolRoom } from '.'

const tebibyte = 1024n ** 4n
const pool = (number: number, written: bigint, more: object = {}) =>
  samplePool({
    id: sampleId(number),
    name: `pool-${number}`,
    usableBytes: 11n * tebibyte,
    metadataBytes: tebibyte,
    writtenBytes: written * tebibyte,
    provisionedBytes: 20n * tebibyte,
    ...more,
  })

test('pools stand with what is left to write, the roomiest first, and each begins a draft', () => {
  shown(<PoolRoom pools={[pool(1, 9n), pool(2, 1n), pool(3, 5n, { state: 'degraded' }), pool(4, 12n)]} />)
  const links = screen.getAllByRole('link')
  expect(links.map(wordsOf)).toEqual([
    'pool-29 TiB10% full, 20 TiB promised',
    'pool-35 TiB[now] degraded, 20 TiB promised',
    'pool-11 TiB[soon] 90% full, 20 TiB promised',
    'pool-40 B[soon] 120% full, 20 TiB promised',
  ])
  expect(links[0]?.getAttribute('href')).toBe(`/provision?draft=provision-volume&pool=${sampleId(2)}`)
})

test('a pool that gives volumes nothing is full; without pools it says what to do', () => {
  const { unmount } = shown(<PoolRoom pools={[pool(1, 0n, { usableBytes: 0n })]} />)
  expect(screen.getByRole('link').textContent).toContain('100% full')
  unmount()
  shown(<PoolRoom pools={[]} />)
  expect(screen.getByText('No pool has been built yet.')).toBeTruthy()
})
