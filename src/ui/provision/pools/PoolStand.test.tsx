/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleId, samplePool } from '@/core/estate/testing/samples'
import { shown, wordsOf } from '../../testing/browser'
import { PoolStand } from '.'
import { stand } from './stands'

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

test('pools stand with what is written and promised, the fullest first, and each begins a draft', () => {
  shown(<PoolStand pools={[pool(1, 8n), pool(2, 1n), pool(3, 5n, { state: 'degraded' }), pool(4, 12n)]} />)
  const rows = screen.getAllByRole('row').slice(1)
  expect(rows.map(row => wordsOf(row).replace(/\s+/g, ' '))).toEqual([
    'pool-4[soon] 12 TiB20 TiB10 TiB[now] 0 B',
    'pool-1[soon] 8 TiB20 TiB10 TiB[soon] 2 TiB',
    'pool-3[soon] 5 TiB20 TiB10 TiB[now] degraded',
    'pool-2[soon] 1 TiB20 TiB10 TiB9 TiB',
  ])
  expect(screen.getByText('pool-4').getAttribute('href')).toBe(`/provision?draft=provision-volume&pool=${sampleId(4)}`)
})

test('of many pools the fullest stand there, and where the others are is said', () => {
  shown(<PoolStand pools={Array.from({ length: 9 }, (_, index) => pool(index + 1, BigInt(index)))} />)
  expect(screen.getAllByRole('row')).toHaveLength(7)
  expect(screen.getByRole('link', { name: 'three other pools' }).getAttribute('href')).toBe('/build/pools')
})

test('a pool that gives volumes nothing is full; without pools nothing is drawn', () => {
  const { unmount } = shown(<PoolStand pools={[pool(1, 0n, { usableBytes: 0n })]} />)
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe('100% written')
  unmount()
  shown(<PoolStand pools={[]} />)
  expect(screen.queryByRole('table')).toBeNull()
})

test('what is promised far beyond a pool ends where the drawing does', () => {
  const { capacity, written, promised, isCut } = stand(pool(1, 5n))
  expect(written).toBeCloseTo(capacity / 2)
  expect(promised).toBeCloseTo(240)
  expect(isCut).toBe(true)
})
