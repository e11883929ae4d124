import { evidenceOf } from '@/records/changes'
import { blocks, factOf } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
let naa = ''
beforeAll(async () => {
  bench = await blocks()
  naa = (await bench.volume())?.naa ?? ''
  await bench.agent('register-1', '/logins', { target: bench.array.model.ports[0]?.target })
  await bench.agent('register-1', '/rescan', {})
})
afterAll(() => bench.close())

const asked = (isThin: boolean) => ({ volumeId: bench.ids['volume'], isThin })
const range = { offsetBytes: '8388608', lengthBytes: 65_536 }
const read = async () => (await bench.agent('register-1', `/devices/${naa}/read`, range)).sha256
const poolWritten = async () =>
  (await bench.estate()).pools.find(({ id }) => id === bench.ids['pool'])?.writtenBytes ?? 0n

test('a thin volume becomes thick and thin again: its bytes stay, its pool gives and gets', async () => {
  const { sha256 } = await bench.agent('register-1', `/devices/${naa}/write`, { ...range, seed: 'before' })
  expect(await bench.refused('convert-volume', asked(true))).toEqual(['other'])
  const before = await poolWritten()
  const change = await bench.done('convert-volume', asked(false))
  expect((await evidenceOf({ database: bench.database }, change.id)).map(({ claim }) => claim)).toEqual([
    'The system states that it is thick, and ready',
    'register-1 sees the volume with its full size',
  ])
  const thick = await bench.volume()
  expect([thick?.isThin, thick?.writtenBytes]).toEqual([false, thick?.sizeBytes])
  expect((await poolWritten()) > before).toBe(true)
  expect(await read()).toBe(sha256)
  expect(await bench.refused('convert-volume', asked(false))).toEqual(['other'])
  await bench.done('convert-volume', asked(true))
  expect(await bench.volume()).toMatchObject({ isThin: true })
  expect(await poolWritten()).toBeLessThan((thick?.sizeBytes ?? 0n) + before)
  expect(await read()).toBe(sha256)
})

test('one that its pool has no room for, one that shares, and one in holding stay as they are', async () => {
  const made = async (name: string, size: string) =>
    factOf(
      await bench.done('provision-volume', {
        ...{ name, size, poolId: bench.ids['pool'], purpose: '', isThin: true, hostGroupId: '' },
      }),
      'volumeId',
    )
  const large = await made('register-huge', '900 TiB')
  expect(await bench.refused('convert-volume', { volumeId: large, isThin: false })).toEqual(['fits'])
  const taken = await bench.done('take-snapshot', { volumeId: bench.ids['volume'], name: 'base', reason: 'for a copy' })
  const clone = await bench.done('clone-volume', {
    ...{ volumeId: bench.ids['volume'], snapshotId: factOf(taken, 'snapshotId'), name: 'register-copy', size: '' },
    ...{ poolId: '', hostGroupId: '' },
  })
  const copyId = factOf(clone, 'cloneId')
  expect(await bench.refused('convert-volume', { volumeId: copyId, isThin: false })).toContain('stands-alone')
  await bench.done('remove-volume', { volumeId: large, confirmedName: 'register-huge' })
  expect(await bench.refused('convert-volume', { volumeId: large, isThin: false })).toContain('volume')
})

test('a worker that dies while it is zeroed finds the conversion under way, and ends it', async () => {
  const made = await bench.done('provision-volume', {
    ...{ name: 'register-slow', size: '200 GiB', poolId: bench.ids['pool'], purpose: '', isThin: true },
    hostGroupId: '',
  })
  const volumeId = factOf(made, 'volumeId')
  bench.fleet.clock.setRate(5)
  const id = await bench.begun('convert-volume', { volumeId, isThin: false })
  await bench.until(
    async () => bench.array.all('tasks').some(each => each.name === 'Zero register-slow'),
    'it is zeroed',
  )
  await bench.restartWorker()
  bench.fleet.clock.setRate(36_000)
  expect((await bench.ended(id)).state).toBe('proven')
  expect(bench.array.all('tasks').filter(each => each.name === 'Zero register-slow')).toHaveLength(1)
})
