import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { kindList } from '@/core/estate'
import type { Sequelize } from 'sequelize'
import { firstCode } from '../access'
import { firstBrokenEntry } from '../audit'
import { changeById, evidenceOf, journalOf, latestChanges } from '../changes'
import { openDatabase, rows } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { object, objectCount, objects } from '../objects'
import { objectList, search, systemPage, volumeList, volumePage } from '../queries'
import { emptyDatabase, sampleInventory } from '../testing'
import { migrate } from './migrate'

const dump = readFileSync(join(process.cwd(), 'src/records/migrations/testing/first-version.sql'), 'utf8')
let database: Sequelize
let url: string
const scope = () => ({ database })

beforeAll(async () => {
  url = await emptyDatabase()
  // In one connection of its own: what a dump sets for its session must not be what later statements find.
  const restoring = openDatabase(url, 1)
  await restoring.query(`create extension pg_trgm; ${dump}`)
  await restoring.close()
  database = openDatabase(url)
  await migrate(database, url)
})
afterAll(() => database.close())

test('an estate of the first version is found again, whole, after the next start', async () => {
  const [system] = await objects(scope(), 'systems')
  expect(system).toMatchObject({ name: 'heron', maker: 'Tallis & Thorne', serial: '19AF628DCC', reach: 'answering' })
  const page = await systemPage(scope(), system?.id ?? '')
  expect(page?.drives).toHaveLength(24)
  expect(page?.pools.map(pool => pool.name)).toEqual(['heron-fast-01'])
  expect(page?.controllers).toHaveLength(2)
  const [volume] = (await volumeList(scope(), {})).items
  expect(volume).toMatchObject({ name: 'register-data-01', groupNames: ['accession-register'], missingSince: null })
  const volumes = await volumePage(scope(), volume?.id ?? '')
  expect(volumes?.volume.naa).toMatch(/^[0-9a-f]{32}$/)
  expect(volumes?.changes.map(change => change.title)).toEqual(['Provision register-data-01 to accession-register'])
  expect((await search(scope(), 'register-data')).map(hit => hit.kind)).toEqual(['volume', 'change'])
  expect((await objects(scope(), 'hosts')).map(host => host.initiators.length)).toEqual([1, 0, 1])
})

test('its changes stand as they ended, with journal and evidence, and each has a digest and an edit', async () => {
  const changes = await latestChanges(scope(), 20)
  expect(changes.map(change => [change.kind, change.state])).toEqual([
    ['provision-volume', 'proven'],
    ['create-pool', 'proven'],
    ['register-host', 'proven'],
    ['register-host', 'proven'],
    ['register-host', 'proven'],
    ['register-system', 'draft'],
    ['register-system', 'proven'],
  ])
  for (const { id, state, planDigest, edit, editedBy, madeBy } of changes) {
    expect([planDigest.length > 30, edit, editedBy]).toEqual([true, 1, madeBy])
    if (state === 'draft') continue
    expect((await journalOf(scope(), id)).some(entry => entry.event === 'done')).toBe(true)
    expect((await evidenceOf(scope(), id)).every(entry => entry.holds && entry.attempt === 1)).toBe(true)
    expect((await changeById(scope(), id))?.plan.steps.length).toBeGreaterThan(0)
  }
})

test('every kind can be read from it, and what the next reading states is known again by its durable name', async () => {
  for (const kind of kindList)
    expect((await objectList(scope(), kind.name)).total).toBe(await objectCount(scope(), kind.name))
  const [system] = await objects(scope(), 'systems')
  const [before] = await objects(scope(), 'volumes')
  const moved = sampleInventory()
  const stated = { ...(moved.volumes[0] as (typeof moved.volumes)[0]), naa: before?.naa ?? '', locator: '/elsewhere' }
  await storeInventory(database, system?.id ?? '', { ...moved, volumes: [stated] }, await nextReading(scope()))
  expect(await object(scope(), 'volumes', before?.id ?? '')).toMatchObject({ id: before?.id, locator: '/elsewhere' })
})

test('what is new since is there: a record without a break, a code of 128 bits, and a start that changes nothing more', async () => {
  expect(await firstBrokenEntry(scope())).toBeUndefined()
  expect((await firstCode(scope()))?.replaceAll('-', '')).toMatch(/^[0-9A-F]{32}$/)
  const before = await rows(scope(), 'select name from migrations order by name')
  await migrate(database, url)
  expect(await rows(scope(), 'select name from migrations order by name')).toEqual(before)
})
