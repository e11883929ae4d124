import { hostWays, standingFindings } from '@/records/queries'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
}, 120_000)
afterAll(() => bench.close())

const ways = async () => {
  const volume = await bench.volume()
  return hostWays({ database: bench.database }, { naa: volume?.naa ?? '' })
}
const checks = async () =>
  (await standingFindings({ database: bench.database }, null)).map(({ finding }) => finding.check)
const down = (controller: string) =>
  bench.fleet.faults.inject({
    target: 'heron',
    kind: 'controller-down',
    milliseconds: 0,
    retryAfterSeconds: 0,
    atRatio: 0,
    drive: '',
    times: 0,
    controller,
  })

test('each way of a host to a volume is known, with the controller at which it ends', async () => {
  await bench.until(async () => (await ways()).length > 0, 'the host has told of its ways')
  const [seen] = await ways()
  expect(seen).toMatchObject({ hostName: 'register-1', systemName: 'heron', disk: { name: 'register-data-01' } })
  expect(seen?.ways.map(({ controller, isUp }) => `${controller} ${isUp}`)).toEqual([
    'Controller A true',
    'Controller A true',
    'Controller B true',
    'Controller B true',
  ])
  expect(await hostWays({ database: bench.database }, { hostId: seen?.hostId ?? '' })).toHaveLength(1)
  expect(await checks()).not.toContain('one-controller')
}, 40_000)

test('a controller that goes out is a finding of every host that is left with one; it clears when it is back', async () => {
  const volume = await bench.volume()
  const range = { offsetBytes: '0', lengthBytes: 4096, seed: 'x' }
  const write = async () => (await bench.agent('register-1', `/devices/${volume?.naa}/write`, range)).status
  down('A')
  await bench.until(async () => (await checks()).includes('one-controller'), 'it is told that one controller is left')
  // The other controller's ways go on.
  expect(await write()).toBe(200)
  down('B')
  await bench.until(async () => (await checks()).includes('no-path'), 'it is told that nothing is reached')
  expect(await write()).toBe(503)
  bench.fleet.faults.clear()
  await bench.until(async () => (await checks()).every(each => each !== 'no-path'), 'it clears')
  expect(await write()).toBe(200)
}, 90_000)
