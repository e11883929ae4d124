import { testFleet } from '../testing/serviceOf'

const root = '/redfish/v1'
const gigabyte = 10 ** 9
let bench: Awaited<ReturnType<typeof testFleet>>
let volume = ''
let pool = ''
beforeAll(async () => {
  bench = await testFleet(360_000)
  for (const name of ['heron', 'curlew']) await poolOn(name)
  const { body } = await ask('heron', 'POST', 'Storage/1/Volumes', {
    ...{ Name: 'data', CapacityBytes: gigabyte },
    CapacitySources: [
      { ProvidingPools: { Members: [{ '@odata.id': `${root}/x/${array('heron').all('pools')[0]?.id}` }] } },
    ],
  })
  volume = String(body['Id'])
  pool = `${root}/Storage/1/StoragePools/${array('curlew').all('pools')[0]?.id}`
})
afterAll(() => bench.stop())

const array = (name: string) => {
  const found = bench.fleet.arrays.find(each => each.model.name === name)
  if (found === undefined) throw new Error(`no ${name}`)
  return found
}
async function ask(name: string, method: string, path: string, body?: object) {
  const at = `${root}/${path}`
  const tag = method === 'POST' ? null : (await bench.ask(name, 'GET', at)).headers.get('etag')
  return bench.ask(name, method, at, {
    ...(body === undefined ? {} : { body }),
    ...(tag === null || method === 'GET' ? {} : { headers: { 'If-Match': tag } }),
  })
}
async function until(holds: () => boolean) {
  for (let waited = 0; waited < 20_000 && !holds(); waited += 20) await new Promise(done => setTimeout(done, 20))
  expect(holds()).toBe(true)
}
async function poolOn(name: string) {
  const drives = array(name).all('drives').slice(0, 6)
  await ask(name, 'POST', 'Storage/1/StoragePools', {
    ...{ Name: `${name}-one`, SupportedRAIDTypes: ['RAID6'] },
    CapacitySources: [{ ProvidingDrives: { Members: drives.map(each => ({ '@odata.id': `${root}/x/${each.id}` })) } }],
  })
  await until(() => array(name).all('pools')[0]?.isReady === true)
}
const near = () => array('heron').one('volumes', volume)
const far = () => array('curlew').one('volumes', near().mirror?.volumeId ?? '')
const act = (name: string, id: string, action: string, body: object) =>
  ask(name, 'POST', `Storage/1/Volumes/${id}/Actions/Volume.${action}`, body)
const mirror = (more: object = {}, own: object = {}) =>
  act('heron', volume, 'CreateReplicaTarget', {
    ...{
      VolumeName: 'data',
      ReplicaType: 'Mirror',
      ReplicaUpdateMode: 'Synchronous',
      TargetStoragePool: pool,
      ...more,
    },
    Oem: { TallisThorne: { MirrorPartner: array('curlew').model.serial, ...own } },
  })
const shown = async (name: string, id: string) => (await ask(name, 'GET', `Storage/1/Volumes/${id}`)).body
const uriOf = (id: string, name = 'curlew') =>
  `https://${name}.storage.marrowfield.example${root}/Storage/1/Volumes/${id}`

test('only partners are mirrored to, into pools that they have', async () => {
  expect((await mirror({}, { MirrorPartner: array('bittern').model.serial })).status).toBe(409)
  expect((await mirror({ TargetStoragePool: `${root}/Storage/1/StoragePools/none` })).status).toBe(400)
  expect((await mirror({ ReplicaType: 'Else' })).status).toBe(400)
  const storage = (await ask('heron', 'GET', 'Storage/1')).body
  expect(storage['Oem']).toEqual({ TallisThorne: { Partners: [{ SerialNumber: array('curlew').model.serial }] } })
  expect(near().mirror).toBeUndefined()
})

test('while it is filled the other end is shown to nobody, and neither can be altered', async () => {
  array('heron').store.commit([array('heron').entry('volumes', { ...near(), workloadBytes: `${400 * gigabyte}` })])
  bench.fleet.clock.setRate(1)
  expect((await mirror()).status).toBe(202)
  expect(far()).toMatchObject({ naa: near().naa, isReady: false })
  expect(await shown('curlew', far().id)).toMatchObject({
    ReplicaInfos: [
      { ReplicaRole: 'Target', ReplicaState: 'Unsynchronized', RemoteSourceReplica: uriOf(volume, 'heron') },
    ],
    Status: { State: 'Starting' },
  })
  expect(await shown('heron', volume)).toMatchObject({ RemoteReplicaTargets: [uriOf(far().id)] })
  expect((await ask('heron', 'PATCH', `Storage/1/Volumes/${volume}`, { CapacityBytes: 2 * gigabyte })).status).toBe(409)
  expect((await ask('heron', 'DELETE', `Storage/1/Volumes/${volume}`)).status).toBe(409)
  expect((await ask('curlew', 'DELETE', `Storage/1/Volumes/${far().id}`)).status).toBe(409)
  expect((await act('heron', volume, 'ReverseReplicationRelationship', { TargetVolume: uriOf(far().id) })).status).toBe(
    409,
  )
  expect((await act('heron', volume, 'RemoveReplicaRelationship', { TargetVolume: uriOf(far().id) })).status).toBe(409)
  expect((await mirror()).status).toBe(409)
})

test('what is written reaches both ends, a snapshot is of one instant at both, and each lets the other take over', async () => {
  bench.fleet.clock.setRate(360_000)
  await until(() => near().mirror?.state === 'synchronised')
  const { blockMirrors } = await import('../array')
  blockMirrors.write(array('heron'), volume, 4096n, Buffer.from('both'))
  expect(array('curlew').blocks.read(far().id, 4096n, 4).toString()).toBe('both')
  const action = {
    VolumeName: 'data.now',
    ReplicaType: 'Snapshot',
    ReplicaUpdateMode: 'Adaptive',
    TargetStoragePool: 'x',
  }
  expect((await act('heron', volume, 'CreateReplicaTarget', action)).status).toBe(202)
  const [one, other] = [array('heron').all('snapshots')[0], array('curlew').all('snapshots')[0]]
  expect([one?.name, one?.takenAt]).toEqual([other?.name, other?.takenAt])
  expect(
    (await act('curlew', far().id, 'ReverseReplicationRelationship', { TargetVolume: uriOf(volume, 'heron') })).status,
  ).toBe(409)
  expect((await act('heron', volume, 'ReverseReplicationRelationship', { TargetVolume: uriOf('other') })).status).toBe(
    404,
  )
  const reversed = await act('heron', volume, 'ReverseReplicationRelationship', { TargetVolume: uriOf(far().id) })
  expect([reversed.status, near().mirror?.role, far().mirror?.role]).toEqual([204, 'target', 'source'])
})

test('an end that does not answer is left behind, and then neither takes over from the other', async () => {
  const { blockMirrors } = await import('../array')
  const fault = { target: 'heron', kind: 'not-answering', milliseconds: 0, retryAfterSeconds: 0 } as const
  bench.fleet.faults.inject({ ...fault, atRatio: 0, drive: '', times: 0 })
  blockMirrors.write(array('curlew'), far().id, 4096n, Buffer.from('here'))
  bench.fleet.faults.clear()
  expect([near().mirror?.state, far().mirror?.state]).toEqual(['broken', 'broken'])
  expect(array('heron').blocks.read(volume, 4096n, 4).toString()).toBe('both')
  const to = { TargetVolume: uriOf(volume, 'heron') }
  expect((await act('curlew', far().id, 'ReverseReplicationRelationship', to)).status).toBe(409)
})

test('a broken mirror is filled again by its source, from the beginning; cut off in between, it is as broken as before', async () => {
  const { blockMirrors } = await import('../array')
  const resumed = (name: string, id: string, TargetVolume: string) =>
    act(name, id, 'ResumeReplication', { TargetVolume, Oem: { TallisThorne: { MoveRatePercent: 50 } } })
  const again = () => resumed('curlew', far().id, uriOf(volume, 'heron'))
  const states = () => [near().mirror?.state, far().mirror?.state]
  // What the end that is behind has besides is not what the source has.
  blockMirrors.write(array('heron'), volume, 8192n, Buffer.from('old'))
  expect((await resumed('heron', volume, uriOf(far().id))).status).toBe(409)
  expect((await resumed('curlew', far().id, uriOf('other', 'heron'))).status).toBe(400)
  bench.fleet.clock.setRate(1)
  expect((await again()).status).toBe(202)
  expect(states()).toEqual(['copying', 'copying'])
  expect((await again()).status).toBe(409)
  const fault = { target: 'heron', kind: 'not-answering', milliseconds: 0, retryAfterSeconds: 0 } as const
  bench.fleet.faults.inject({ ...fault, atRatio: 0, drive: '', times: 0 })
  await until(() => far().mirror?.state === 'broken')
  expect(states()).toEqual(['broken', 'broken'])
  bench.fleet.faults.clear()
  bench.fleet.clock.setRate(360_000)
  expect((await again()).status).toBe(202)
  await until(() => states().every(each => each === 'synchronised'))
  expect(array('heron').blocks.read(volume, 4096n, 4).toString()).toBe('here')
  expect(array('heron').blocks.read(volume, 8192n, 3)).toEqual(Buffer.alloc(3))
  expect((await again()).status).toBe(409)
})

test('a mirror that ends leaves what followed under a name of its own', async () => {
  const to = { TargetVolume: uriOf(volume, 'heron') }
  const [naa, farId] = [far().naa, far().id]
  expect((await act('curlew', farId, 'RemoveReplicaRelationship', to)).status).toBe(204)
  expect([near().mirror, near().naa === naa, array('curlew').one('volumes', farId).naa]).toEqual([
    undefined,
    false,
    naa,
  ])
})
