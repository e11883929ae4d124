import { those } from '@/core/estate'
import { evidenceOf } from '@/records/changes'
import { blocks, factOf } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const evidence = (id: string) => evidenceOf({ database: bench.database }, id)
const list = [
  'name,group,initiators',
  'desk-1,desks,iqn.2026-01.example.desk:1',
  'desk-2,desks,5001405c0ffee002;5001405c0ffee003',
].join('\n')

test('hosts without an agent come in by a list, and what no agent can test the system is asked for', async () => {
  await bench.done('register-hosts', { list })
  const { hosts, hostGroups } = await bench.estate()
  const desks = hostGroups.find(({ name }) => name === 'desks')
  expect(hosts.filter(each => each.hostGroupId === desks?.id)).toMatchObject([
    { name: 'desk-1', agentAddress: null, initiators: ['iqn.2026-01.example.desk:1'] },
    { name: 'desk-2', initiators: ['50:01:40:5c:0f:fe:e0:02', '50:01:40:5c:0f:fe:e0:03'] },
  ])
  const made = await bench.done('provision-volume', {
    name: 'desk-data-01',
    purpose: '',
    size: '64 MiB',
    poolId: bench.ids['pool'],
    isThin: true,
    hostGroupId: desks?.id,
    application: 'reading room',
  })
  expect(await evidence(made.id)).toMatchObject([
    { holds: true },
    { holds: true, measured: { mappedTo: 'desks', initiators: '3 of 3' } },
    // A host outside the group that has an agent is asked all the same.
    { claim: expect.stringContaining('does not see it') as string, holds: true },
  ])
  expect(await bench.volume(factOf(made, 'volumeId'))).toMatchObject({ application: 'reading room' })
  const desk = hosts.find(({ name }) => name === 'desk-1')
  expect(await bench.refused('prepare-volume', ready(factOf(made, 'volumeId'), desk?.id))).toEqual(['host'])
  expect(await bench.refused('forget-host', { hostId: desk?.id })).toEqual(['unseen'])
  await bench.done('unmap-volume', { volumeId: factOf(made, 'volumeId'), hostGroupId: desks?.id })
  await bench.done('forget-host', { hostId: desk?.id })
  expect((await bench.estate()).hosts.map(({ name }) => name)).not.toContain('desk-1')
})

const ready = (volumeId: string, hostId: string | undefined) => ({
  volumeId,
  hostId,
  fileSystem: 'xfs',
  path: '',
  isRestarted: false,
})

test('a list that names what is registered already is refused by its line, and nothing of it is taken', async () => {
  const before = (await bench.estate()).hosts.length
  const again = 'desk-2,desks,iqn.2026-01.example.other:1\ndesk-9,desks,50:01:40:5c:0f:fe:e0:02'
  const { plan } = await bench.drafted('register-hosts', { list: again })
  expect(plan.checks.find(({ rule }) => rule === 'new')?.why).toBe(
    'Line 1: desk-2 is registered already. Line 2: 50:01:40:5c:0f:fe:e0:02 is desk-2.',
  )
  expect(await bench.refused('register-hosts', { list: 'x,g,nonsense' })).toEqual(['lines'])
  expect(await bench.refused('register-hosts', { list: '' })).toEqual(['lines'])
  expect((await bench.estate()).hosts).toHaveLength(before)
})

test('a pool that is kept for one application refuses others, by hand and under a class', async () => {
  const asked = { name: 'kept-01', purpose: '', size: '8 MiB', isThin: true, hostGroupId: '' }
  await bench.done('keep-pool', { poolId: bench.ids['other'], application: 'catalogue' })
  expect(await bench.refused('keep-pool', { poolId: bench.ids['other'], application: 'catalogue' })).toEqual(['other'])
  const other = { ...asked, poolId: bench.ids['other'] }
  expect(await bench.refused('provision-volume', other)).toEqual(['kept-for'])
  expect(await bench.refused('provision-volume', { ...other, application: 'register' })).toEqual(['kept-for'])
  expect(await bench.refused('provision-volume', { ...other, application: ' catalogue ' })).toEqual([])
  const several = { list: 'kept-01,8 MiB', classId: '', poolId: bench.ids['other'], isThin: true, isTogether: false }
  expect(await bench.refused('provision-volumes', { ...several, hostGroupId: '' })).toEqual(['kept-for'])
  const moved = { volumeId: bench.ids['volume'], poolId: bench.ids['other'], classId: '', ratePercent: 20 }
  expect(await bench.refused('move-volume', moved)).toEqual(['kept-for'])
  await bench.done('set-application', { volumeIds: [bench.ids['volume']], application: 'catalogue' })
  expect(await bench.refused('move-volume', moved)).toEqual([])
  await bench.done('keep-pool', { poolId: bench.ids['other'], application: '' })
  expect(await bench.refused('provision-volume', other)).toEqual([])
})

test('an image is seen by nobody; clones of it share with it, and one can be larger', async () => {
  const volumeId = bench.ids['volume']
  expect(await bench.refused('keep-as-image', { volumeId })).toEqual(['unseen'])
  await bench.done('unmap-volume', { volumeId, hostGroupId: bench.ids['accession-register'] })
  await bench.done('keep-as-image', { volumeId })
  const mapped = { volumeId, hostGroupId: bench.ids['catalogue'] }
  expect(await bench.refused('map-volume', mapped)).toEqual(['no-image'])
  const clone = { volumeId, snapshotId: '', name: 'large-01', poolId: '', hostGroupId: bench.ids['catalogue'] }
  expect(await bench.refused('clone-volume', { ...clone, size: '32 MiB' })).toEqual(['not-smaller'])
  const made = await bench.done('clone-volume', { ...clone, size: '96 MiB' })
  expect(await bench.volume(factOf(made, 'cloneId'))).toMatchObject({ sizeBytes: 96n * 1024n ** 2n })
  await bench.done('release-image', { volumeId })
  expect(await bench.refused('map-volume', mapped)).toEqual([])
})

test('many clones of one moment come from a range of names, and take nothing until they are written', async () => {
  const asked = { volumeId: bench.ids['volume'], snapshotId: '', hostGroupId: bench.ids['backup'] }
  expect(await bench.refused('clone-volumes', { ...asked, names: '' })).toEqual(['names'])
  expect(await bench.refused('clone-volumes', { ...asked, names: 'd-{9..1}' })).toEqual(['names'])
  expect(await bench.refused('clone-volumes', { ...asked, names: 'd-{001..501}' })).toEqual(['names'])
  expect(await bench.refused('clone-volumes', { ...asked, names: 'large-01' })).toEqual(['names-free'])
  const made = await bench.done('clone-volumes', { ...asked, names: 'seat-{01..25}', application: 'reading room' })
  expect(await evidence(made.id)).toMatchObject([
    { holds: true, measured: { stated: '25 of 25', sharing: '25' } },
    { holds: true, claim: expect.stringContaining('seat-01 and the snapshot') as string },
    { holds: true },
  ])
  const { volumes } = await bench.estate([those('volumes', 'application', 'reading room')])
  const seats = volumes.filter(({ name }) => name.startsWith('seat-'))
  expect(seats).toHaveLength(25)
  expect(new Set(seats.map(({ cloneOfId }) => cloneOfId)).size).toBe(1)
  const seat = seats[0]
  if (seat === undefined) throw new Error('No clone was made.')
  // What a host writes to one is the clone's own from then on.
  const written = { offsetBytes: '0', lengthBytes: 1_048_576, seed: 'its own' }
  expect((await bench.agent('keep-1', `/devices/${seat.naa}/write`, written)).status).toBe(200)
  await bench.until(
    async () => ((await bench.volume(seat.id))?.writtenBytes ?? 0n) > 0n,
    'the clone has bytes of its own',
  )
})
