import { collection, link, lying, reach, root, storage, volume, type Body, type Page } from './testing/lyingSystem'

const naa = '60000000000000000000000000000001'
const locator = `${root}/Storage/1/Volumes/1`
const groups = `${root}/Storage/1/ConsistencyGroups`
const group = (more: Body = {}): Body => ({
  ...link('Storage/1/ConsistencyGroups/1'),
  Id: '1',
  Name: 'ledger',
  Volumes: [link('Storage/1/Volumes/1'), link('Storage/1/Volumes/2')],
  Actions: { '#ConsistencyGroup.CreateReplicaTarget': { target: `${groups}/1/Actions/Replicate` } },
  ...more,
})
const snapshot = (number: number, of: number, name: string, at = '2026-05-04T10:00:00Z'): Body =>
  volume(number, {
    Name: name,
    ReplicaInfos: [
      {
        ReplicaRole: 'Target',
        ReplicaType: 'Snapshot',
        ConsistencyState: 'Consistent',
        WhenSynced: at,
        Replica: link(`Storage/1/Volumes/${of}`),
      },
    ],
  })
const grouped = (found: Body, more: Readonly<Record<string, Page>> = {}) => ({
  [`GET ${root}/Storage/1`]: { ...storage, ConsistencyGroups: link('Storage/1/ConsistencyGroups') },
  [`GET ${groups}`]: collection('Storage/1/ConsistencyGroups', [link('Storage/1/ConsistencyGroups/1')]),
  [`GET ${groups}/1`]: found,
  ...more,
})

test('a move names the pool, asks for no rate of a maker that takes none, and moves nothing else that stands there', async () => {
  const { address, heard } = await lying({ [`PATCH ${locator}`]: {} })
  const volumes = await reach(address).of('volumes')
  await expect(volumes.move(locator, 'f'.repeat(32), '/p/2', 30)).rejects.toMatchObject({ code: 'system.other-object' })
  expect(heard.filter(each => each.method === 'PATCH')).toEqual([])
  expect(await volumes.move(locator, naa, '/p/2', 30)).toEqual({ locator, task: null })
  expect(JSON.parse(heard.at(-1)?.body ?? '')).toEqual({
    CapacitySources: [{ ProvidingPools: { Members: [{ '@odata.id': '/p/2' }] } }],
  })
  expect(await volumes.at(locator)).toMatchObject({ poolLocator: `${root}/Storage/1/StoragePools/1` })
})

test('work is stopped once: what has ended, or is not known, is left alone', async () => {
  const task = (TaskState: string) => ({ ...link('task'), TaskState })
  const { address, heard } = await lying({
    [`GET ${root}/running`]: task('Running'),
    [`GET ${root}/ended`]: task('Completed'),
    [`GET ${root}/stubborn`]: task('Running'),
    [`DELETE ${root}/running`]: {},
    [`DELETE ${root}/stubborn`]: (_, response) => {
      response.statusCode = 409
      return { error: { message: 'It goes on to its end.' } }
    },
  })
  const tasks = await reach(address).of('tasks')
  for (const each of ['running', 'ended', 'unknown']) await tasks.stop(`${root}/${each}`)
  expect(heard.filter(each => each.method === 'DELETE').map(each => each.url)).toEqual([`${root}/running`])
  await expect(tasks.stop(`${root}/stubborn`)).rejects.toMatchObject({ code: 'system.request-refused' })
})

test('a system without consistency groups says so, and one whose groups offer no common snapshots too', async () => {
  const plain = await lying({})
  await expect(reach(plain.address).of('consistencyGroups')).rejects.toMatchObject({
    code: 'system.not-offered',
    resource: 'consistencyGroups',
  })
  expect((await reach(plain.address).inventory()).consistencyGroups).toEqual([])
  const { address } = await lying(grouped(group({ Actions: {} })))
  const system = reach(address)
  expect((await system.inventory()).consistencyGroups).toEqual([
    { locator: `${groups}/1`, name: 'ledger', volumeCount: 2 },
  ])
  const offered = await system.of('consistencyGroups')
  await expect(offered.take(`${groups}/1`, 'ledger', 'x')).rejects.toMatchObject({ code: 'system.not-offered' })
})

test('another group that stands at the place is neither dissolved nor photographed', async () => {
  const { address, heard } = await lying(grouped(group({ Name: 'photographs' })))
  const offered = await reach(address).of('consistencyGroups')
  for (const attempt of [
    () => offered.dissolve(`${groups}/1`, 'ledger'),
    () => offered.take(`${groups}/1`, 'ledger', 'evening'),
  ])
    await expect(attempt()).rejects.toMatchObject({ code: 'system.other-object' })
  expect(heard.filter(each => !['GET', 'POST'].includes(each.method))).toEqual([])
  expect(heard.filter(each => each.url.includes('/Actions/'))).toEqual([])
})

test('one that is gone is dissolved, and nothing is taken of it', async () => {
  const { address } = await lying(grouped(group()))
  const offered = await reach(address).of('consistencyGroups')
  await offered.dissolve(`${groups}/9`, 'ledger')
  expect(await offered.at(`${groups}/9`)).toBeUndefined()
  expect(await offered.taken(`${groups}/9`, 'evening')).toEqual([])
})

test('what was taken together is found by its name, of its members only, in their order', async () => {
  const all = [
    snapshot(5, 2, 'data-02.evening'),
    snapshot(4, 1, 'data-01.evening'),
    snapshot(6, 3, 'stranger.evening'),
    snapshot(7, 1, 'data-01.morning'),
    volume(1),
  ]
  const { address } = await lying(
    grouped(group(), {
      [`GET ${root}/Storage/1/Volumes`]: collection('Storage/1/Volumes', all),
      ...Object.fromEntries(all.map(each => [`GET ${String(each['@odata.id'])}`, each])),
    }),
  )
  const offered = await reach(address).of('consistencyGroups')
  const taken = await offered.taken(`${groups}/1`, 'evening')
  expect(taken.map(each => [each.name, each.isConsistent, each.takenAt])).toEqual([
    ['data-01.evening', true, '2026-05-04T10:00:00.000Z'],
    ['data-02.evening', true, '2026-05-04T10:00:00.000Z'],
  ])
})
