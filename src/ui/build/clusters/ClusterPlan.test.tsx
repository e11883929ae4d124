/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import type { ClusterSketch } from '@/core/plan'
import { isUnfolded, shown, wordsOf } from '../../testing/browser'
import { ClusterPlan } from './ClusterPlan'

const sketch = (more: Partial<ClusterSketch> = {}): ClusterSketch => ({
  of: 'cluster',
  ladder: [
    { name: 'raw', bytes: '30000000000000', takenBytes: '0', sum: [] },
    { name: 'free', bytes: '20000000000000', takenBytes: '10000000000000', sum: [] },
  ],
  banks: [{ nodeId: 'n1', number: 1, cacheDriveId: 'c', capacityDriveIds: ['d'] }],
  domains: [
    { name: 'godwit-1', rawBytes: '30000000000000', strandedBytes: '4000000000000' },
    { name: 'godwit-2', rawBytes: '26000000000000', strandedBytes: '0' },
  ],
  lacking: { bytes: '4000000000000', domainNames: ['godwit-2'] },
  tolerance: { readable: 2, writable: 1, domainWords: 'nodes' },
  writeCost: { smallWriteOperations: 6, fullStripeRatio: 1.5 },
  rebuild: { seconds: 4800, boundBy: 'drives' },
  durability: { oneYear: 1e-5, fiveYears: 5e-5, whileOneIsAway: 1e-6, awayHours: 8, basis: 'disks fail now and then' },
  alternatives: [{ words: '3 copies', freeBytes: '10000000000000', strandedBytes: '0', readable: 2, writable: 1 }],
  nodes: [
    { id: 'n1', name: 'godwit-1', cells: [{ what: 'firmware', value: '2.4.1', isOdd: false }] },
    { id: 'n2', name: 'godwit-2', cells: [{ what: 'firmware', value: '2.5.0', isOdd: true }] },
  ],
  ...more,
})
const line = (name: string) => screen.getByText(name).closest('tr')?.lastChild?.textContent

test('what survives is said in so many domains, and a single one in words', () => {
  const { unmount } = shown(<ClusterPlan sketch={sketch()} />)
  expect([line('Stays readable'), line('Stays writable')]).toEqual([
    'with any 2 nodes lost at once',
    'with any one node lost',
  ])
  unmount()
  shown(<ClusterPlan sketch={sketch({ tolerance: { readable: 1, writable: 0, domainWords: 'racks' } })} />)
  expect([line('Stays readable'), line('Stays writable')]).toEqual([
    'with any one rack lost',
    'only while none of the racks is lost',
  ])
})

test('what is stranded names the node, and what would free it', () => {
  shown(<ClusterPlan sketch={sketch()} />)
  expect(screen.getByText('4 TB more on godwit-2 would let all of it be used.')).toBeTruthy()
  expect(screen.getAllByText('godwit-1')[0]?.closest('tr')?.textContent).toContain('of')
})

test('what differs between nodes stands open; where all are alike it is folded to a line', () => {
  const { unmount } = shown(<ClusterPlan sketch={sketch()} />)
  expect(isUnfolded(screen.getByText('What differs between the nodes'))).toBe(true)
  expect(wordsOf(screen.getByText('2.5.0'))).toBe('[soon] 2.5.0')
  unmount()
  const [first] = sketch().nodes
  shown(<ClusterPlan sketch={sketch({ nodes: first === undefined ? [] : [first] })} />)
  expect(isUnfolded(screen.getByText('All nodes are alike'))).toBe(false)
})

test('other layouts stand open where there is room for them', () => {
  const { unmount } = shown(<ClusterPlan sketch={sketch()} isWide />)
  expect(isUnfolded(screen.getByText('Other layouts of the same drives'))).toBe(true)
  unmount()
  shown(<ClusterPlan sketch={sketch()} />)
  expect(isUnfolded(screen.getByText('Other layouts of the same drives'))).toBe(false)
})

test('without a bank nothing is promised', () => {
  shown(<ClusterPlan sketch={sketch({ banks: [] })} />)
  expect(screen.getByText(/a cache drive in each node among them/)).toBeTruthy()
  expect(screen.queryByText('Stays readable')).toBeNull()
})

test('what cannot be computed yet is not made up', () => {
  shown(<ClusterPlan sketch={sketch({ durability: null, rebuild: null })} />)
  expect(screen.getAllByText('not computable yet')).toHaveLength(3)
})
