import { randomBytes } from 'node:crypto'
import { nextReading, storeInventory } from '../inventory'
import { noteGap, sampleLevels } from '../metrics'
import { enrolled, freshDatabase, sampleDriveFound, sampleInventory } from '../testing'
import { healthPage } from '.'

test('drives that are not well come before worn ones, sensors by how near they are, and each system says what is known of it', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
    const found = sampleInventory({
      drives: [
        sampleDriveFound(1),
        sampleDriveFound(2, { wearRatio: 0.8 }),
        sampleDriveFound(3, { state: 'failed', wearRatio: null }),
        sampleDriveFound(4, { wearRatio: null, correctedErrors: 900, lostErrors: 0 }),
        sampleDriveFound(5, { wearRatio: null, correctedErrors: 4, lostErrors: 1 }),
        sampleDriveFound(6, { wearRatio: null, correctedErrors: 0, lostErrors: 0 }),
      ],
      sensors: [
        { name: 'inlet', unit: 'Cel', reading: 20, cautionAt: 40 },
        { name: 'outlet', unit: 'Cel', reading: 39, cautionAt: 40 },
        { name: 'fan', unit: 'RPM', reading: 9000, cautionAt: null },
      ],
    })
    await storeInventory(database, systemId, found, await nextReading(scope), undefined)
    const at = new Date('2026-05-04T10:00:00.000Z')
    await sampleLevels(database, systemId, at)
    await noteGap(scope, systemId, new Date('2026-05-01T00:00:00.000Z'))
    const page = await healthPage(scope)
    expect(page.drives.map(({ serial, state, poolName }) => [serial, state, poolName])).toEqual([
      ['SER3', 'failed', 'pool'],
      ['SER5', 'fine', 'pool'],
      ['SER4', 'fine', 'pool'],
      ['SER2', 'fine', 'pool'],
      ['SER1', 'fine', 'pool'],
    ])
    expect(page.sensors.map(({ name }) => name)).toEqual(['outlet', 'inlet', 'fan'])
    expect(page.drives[1]).toMatchObject({ correctedErrors: 4, lostErrors: 1 })
    expect([page.driveCount, page.sensorCount]).toEqual([6, 3])
    expect(page.sources).toEqual([
      expect.objectContaining({
        name: 'heron',
        levelsUntil: at.toISOString(),
        countersUntil: null,
        gapSince: '2026-05-01T00:00:00.000Z',
        refused: {},
      }),
    ])
  } finally {
    await close()
  }
})
