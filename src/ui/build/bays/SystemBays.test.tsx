/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleDrive, sampleId, samplePool } from '@/core/estate/testing/samples'
import { packed } from '@/core/views'
import { PoolChoice, usePoolChoice } from '../../drafts/PoolChoice'
import { giveSizes, shown } from '../../testing/browser'
import { SystemBays } from './SystemBays'

beforeAll(() => giveSizes())

const enclosure = (number: number) => ({
  id: sampleId(9000 + number),
  systemId: sampleId(1),
  locator: `/e/${number}`,
  name: `Enclosure ${number}`,
  bayCount: 24,
  baysPerRow: 24,
  revision: 1,
})
const drivesIn = (enclosures: number) =>
  Array.from({ length: enclosures * 24 }, (_, index) =>
    sampleDrive(1000 + index, {
      enclosureId: sampleId(9000 + Math.floor(index / 24)),
      bay: 1 + (index % 24),
      nodeId: null,
    }),
  )
const Chosen = () => <output>{usePoolChoice().chosen.length}</output>
const bays = (enclosures: number, isOpen: boolean, more: Parameters<typeof sampleDrive>[1] = {}) => (
  <PoolChoice isOpen={isOpen} initial={[]}>
    <SystemBays
      systemId={sampleId(1)}
      enclosures={Array.from({ length: enclosures }, (_, number) => enclosure(number))}
      drives={packed(drivesIn(enclosures).map((drive, index) => (index === 2 ? { ...drive, ...more } : drive)))}
      pools={[samplePool({ id: sampleId(2), name: 'fast', groupSizes: [1] })]}
    />
    <Chosen />
  </PoolChoice>
)

test('few bays are parts of the page: each says what it holds, and is chosen by itself or up to another', async () => {
  const { user } = shown(bays(1, true, { poolId: sampleId(2), role: 'data', groupIndex: 0 }))
  expect(screen.getByLabelText('Enclosure 0: 24 drives in 24 bays')).toBeTruthy()
  expect(screen.getByLabelText(/^Bay 3, 1002, .*group 1 of fast$/).getAttribute('role')).toBe('img')
  await user.click(screen.getByRole('checkbox', { name: /^Bay 1,/ }))
  await user.keyboard('{Shift>}')
  await user.click(screen.getByRole('checkbox', { name: /^Bay 5,/ }))
  await user.keyboard('{/Shift}')
  // The third is in a pool and no one's to take.
  expect(screen.getByRole('status').textContent).toBe('4')
  await user.click(screen.getByRole('checkbox', { name: /^Bay 4,/ }))
  expect(screen.getByRole('status').textContent).toBe('3')
})

test('many bays are one drawing, in which they are chosen by keyboard while a pool is drafted, and else only looked at', async () => {
  const { user, rerender } = shown(bays(11, true))
  const field = screen.getByRole('application', { name: /^Bays of all enclosures/ })
  expect(screen.queryByRole('checkbox')).toBeNull()
  field.focus()
  await user.keyboard(' {Shift>}{ArrowRight}{ArrowRight}{/Shift}')
  expect(screen.getByRole('status').textContent).toBe('3')
  expect(screen.getByText('3 chosen')).toBeTruthy()
  rerender(bays(11, false))
  expect(screen.getByText('264 drives in 11 enclosures, s spare')).toBeTruthy()
})
