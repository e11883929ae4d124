import { testFleet } from '../testing/serviceOf'

const root = '/redfish/v1'
let bench: Awaited<ReturnType<typeof testFleet>>
const pools: string[] = []
const volumes: string[] = []
beforeAll(async () => {
  bench = await testFleet(360_000)
  const drives = heron()
    .all('drives')
    .filter(each => each.role === 'unassigned')
  for (const [index, name] of ['one', 'two'].entries()) {
    const chosen = drives.slice(index * 6, index * 6 + 6).map(each => ({ '@odata.id': `${root}/x/${each.id}` }))
    await ask('POST', 'Storage/1/StoragePools', {
      Name: name,
      SupportedRAIDTypes: ['RAID6'],
      CapacitySources: [{ ProvidingDrives: { Members: chosen } }],
    })
  }
  await until(
    () =>
      heron().all('pools').length === 2 &&
      heron()
        .all('pools')
        .every(each => each.isReady),
  )
  pools.push(
    ...heron()
      .all('pools')
      .map(each => each.id),
  )
  for (const Name of ['data', 'log']) {
    const { body } = await ask('POST', 'Storage/1/Volumes', {
      Name,
      CapacityBytes: 10 ** 9,
      CapacitySources: sources(pools[0]),
    })
    volumes.push(String(body['Id']))
  }
  bench.fleet.clock.setRate(1)
})
afterAll(() => bench.stop())

const heron = () => {
  const found = bench.fleet.arrays.find(each => each.model.name === 'heron')
  if (found === undefined) throw new Error('no heron')
  return found
}
const sources = (pool = '') => [
  { ProvidingPools: { Members: [{ '@odata.id': `${root}/Storage/1/StoragePools/${pool}` }] } },
]
async function ask(method: string, path: string, body?: object) {
  const at = `${root}/${path}`
  const isTagged = method === 'PATCH' || method === 'DELETE'
  const tag = isTagged ? (await bench.ask('heron', 'GET', at)).headers.get('etag') : null
  return bench.ask('heron', method, at, {
    ...(body === undefined ? {} : { body }),
    ...(tag === null ? {} : { headers: { 'If-Match': tag } }),
  })
}
async function until(holds: () => boolean) {
  for (let waited = 0; waited < 20_000 && !holds(); waited += 50) await new Promise(done => setTimeout(done, 50))
  expect(holds()).toBe(true)
}
const why = ({ body }: { readonly body: Readonly<Record<string, unknown>> }) => JSON.stringify(body)
const account = (bytes: string) => {
  const volume = heron().one('volumes', volumes[0] ?? '')
  heron().store.commit([heron().entry('volumes', { ...volume, workloadBytes: bytes })])
}

test('a move is a task that says how far it is, can be stopped, and leaves the volume where it was', async () => {
  account(`${10 ** 13}`)
  const moved = await ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, {
    CapacitySources: sources(pools[1]),
    Oem: { TallisThorne: { MoveRatePercent: 10 } },
  })
  expect([moved.status, moved.body['TaskState']]).toEqual([202, 'Running'])
  const shown = await ask('GET', `Storage/1/Volumes/${volumes[0]}`)
  expect(shown.body['Operations']).toMatchObject([{ OperationName: 'Move data to two', PercentageComplete: 0 }])
  expect(shown.body['CapacitySources']).toMatchObject(sources(pools[0]))
  const again = await ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, { CapacitySources: sources(pools[1]) })
  expect([again.status, why(again)]).toEqual([409, expect.stringContaining('It is being moved already.')])
  const task = String(moved.body['Id'])
  expect((await ask('DELETE', `TaskService/Tasks/${task}`)).status).toBeLessThan(300)
  expect((await ask('GET', `TaskService/Tasks/${task}`)).body).toMatchObject({ TaskState: 'Cancelled' })
  expect((await ask('GET', `Storage/1/Volumes/${volumes[0]}`)).body['Operations']).toBeUndefined()
  const late = await ask('DELETE', `TaskService/Tasks/${task}`)
  expect([late.status, why(late)]).toEqual([409, expect.stringContaining('It has ended.')])
})

test('more than half of a rate gets it there sooner, in proportion', () => {
  const needed = (percent: number) => {
    const volume = heron().one('volumes', volumes[0] ?? '')
    heron().store.commit([heron().entry('volumes', { ...volume, movingTo: undefined })])
    return ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, {
      CapacitySources: sources(pools[1]),
      Oem: { TallisThorne: { MoveRatePercent: percent } },
    }).then(async ({ body }) => {
      const [lane] = heron().one('tasks', String(body['Id'])).lanes
      await ask('DELETE', `TaskService/Tasks/${String(body['Id'])}`)
      return (lane?.bytes ?? 0) / (lane?.bytesPerSecond ?? 1)
    })
  }
  return needed(20).then(async slow => expect(slow / (await needed(80))).toBeCloseTo(4, 6))
})

test.each([
  ['its own pool', () => pools[0], 400, 'It is in one already.'],
  ['a pool that is not there', () => 'none', 404, ''],
])('a volume does not move to %s', async (_, pool, status, said) => {
  const answer = await ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, { CapacitySources: sources(pool()) })
  expect([answer.status, why(answer)]).toEqual([status, expect.stringContaining(said)])
})

test('what is too much for the other pool does not move, nor does anything to one that has failed', async () => {
  account(`${10 ** 15}`)
  const full = await ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, { CapacitySources: sources(pools[1]) })
  expect([full.status, why(full)]).toEqual([409, expect.stringContaining('bytes left')])
  account('0')
  const group = heron().one('pools', pools[1] ?? '').groups[0] ?? []
  const fail = (isFailed: boolean, count: number) =>
    heron().store.commit(
      group.slice(0, count).map(id => heron().entry('drives', { ...heron().one('drives', id), isFailed })),
    )
  const health = async () => (await ask('GET', `Storage/1/StoragePools/${pools[1]}`)).body['Status']
  fail(true, 2)
  expect(await health()).toMatchObject({ Health: 'Warning' })
  fail(true, 3)
  expect(await health()).toMatchObject({ Health: 'Critical' })
  const failed = await ask('PATCH', `Storage/1/Volumes/${volumes[0]}`, { CapacitySources: sources(pools[1]) })
  expect([failed.status, why(failed)]).toEqual([409, expect.stringContaining('Pool two has failed.')])
  fail(false, 3)
})

test('a volume is in one consistency group at most, and leaves it when it goes', async () => {
  const links = volumes.map(id => ({ '@odata.id': `${root}/Storage/1/Volumes/${id}` }))
  const made = await ask('POST', 'Storage/1/ConsistencyGroups', { Name: 'ledger', Volumes: links })
  expect(made.status).toBe(201)
  const twice = await ask('POST', 'Storage/1/ConsistencyGroups', { Name: 'ledger', Volumes: [] })
  expect([twice.status, why(twice)]).toEqual([409, expect.stringContaining('A group of that name exists.')])
  const other = await ask('POST', 'Storage/1/ConsistencyGroups', { Name: 'other', Volumes: links.slice(0, 1) })
  expect([other.status, why(other)]).toEqual([409, expect.stringContaining('It is in ledger.')])
  expect((await ask('GET', `Storage/1/Volumes/${volumes[1]}`)).body['Links']).toMatchObject({
    ConsistencyGroups: [{ '@odata.id': made.body['@odata.id'] }],
  })
  await ask('DELETE', `Storage/1/Volumes/${volumes[1]}`)
  const path = String(made.body['@odata.id']).slice(root.length + 1)
  expect((await ask('GET', path)).body['Volumes@odata.count']).toBe(1)
  expect((await ask('PATCH', path, { Volumes: [] })).status).toBeLessThan(300)
  const nothing = await ask('POST', `${path}/Actions/ConsistencyGroup.CreateReplicaTarget`, {
    ConsistencyGroupName: 'evening',
    ReplicaType: 'Snapshot',
    ReplicaUpdateMode: 'Adaptive',
  })
  expect([nothing.status, why(nothing)]).toEqual([409, expect.stringContaining('ledger has no volumes.')])
})

test('a row of nodes neither moves volumes nor has such groups', async () => {
  expect((await bench.ask('godwit', 'GET', `${root}/Storage/1`)).body['ConsistencyGroups']).toBeUndefined()
  expect((await bench.ask('godwit', 'GET', `${root}/Storage/1/ConsistencyGroups`)).status).toBe(404)
})
