import { randomBytes } from 'node:crypto'
import { enrolHosts, nextReading, storeInventory } from '../inventory'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { unknownHosts } from '.'

const iqn = (name: string) => `iqn.2019-04.example.marrowfield:${name}`

test('who logs in and is not registered is told with what it is shown, whoever sees most first; registered hosts are not', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
    const found = sampleInventory({
      accessGroups: [
        { name: 'scans', initiators: [iqn('scanner'), iqn('known'), ''] },
        { name: 'desks', initiators: [iqn('scanner')] },
      ],
      ungrouped: [iqn('stranger'), iqn('known'), `'; drop table hosts; --`],
    })
    await storeInventory(database, systemId, found, await nextReading(scope), undefined)
    await enrolHosts(scope, [{ name: 'known', groupName: 'scans', initiators: [iqn('known')], addresses: [] }], 'test')
    expect(await unknownHosts(scope)).toEqual({
      items: [
        { initiator: iqn('scanner'), systems: ['heron'], groups: ['desks', 'scans'] },
        { initiator: `'; drop table hosts; --`, systems: ['heron'], groups: [] },
        { initiator: iqn('stranger'), systems: ['heron'], groups: [] },
      ],
      total: 3,
    })
  } finally {
    await close()
  }
})
