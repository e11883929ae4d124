import { emptyEstate } from '@/core/estate'
import { sampleDrive, sampleId, sampleNode } from '@/core/estate/testing/samples'
import { banksAt } from './clusterChoice'

const node = sampleNode(1, { locator: '/nodes/a' })
const estate = {
  ...emptyEstate,
  nodes: [node],
  drives: [2, 3, 4].map(number => sampleDrive(number, { locator: `/drives/${number}`, nodeId: node.id })),
}
const bank = {
  number: 1,
  nodeId: node.id,
  cacheDriveId: estate.drives[0]?.id ?? '',
  capacityDriveIds: estate.drives.slice(1).map(({ id }) => id),
}

test('a bank is asked for by the places of its node and drives', () => {
  expect(banksAt(estate, [bank])).toEqual([
    { number: 1, nodeLocator: '/nodes/a', cacheLocator: '/drives/2', capacityLocators: ['/drives/3', '/drives/4'] },
  ])
})

test('what is not in the estate is never asked for under an empty place', () => {
  expect(banksAt(estate, [{ ...bank, nodeId: null }])).toEqual([])
  expect(banksAt(estate, [{ ...bank, nodeId: sampleId(99) }])).toEqual([])
  expect(banksAt(estate, [{ ...bank, cacheDriveId: sampleId(99) }])).toEqual([])
  const [found] = banksAt(estate, [{ ...bank, capacityDriveIds: [...bank.capacityDriveIds.slice(0, 1), sampleId(99)] }])
  expect(found?.capacityLocators).toEqual(['/drives/3'])
})
