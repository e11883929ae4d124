import { standingFindings } from '@/records/queries'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const scope = () => ({ database: bench.database })
const drifts = async () =>
  (await standingFindings(scope(), bench.ids['heron'] ?? '')).filter(({ finding }) => finding.check === 'drifted')
const renamed = (name: string) => ({ volumeId: bench.ids['volume'], name })
/** Past Wendrel: at the system itself. */
function changedThere(part: object): void {
  const volume = bench.array.all('volumes').find(({ name }) => name.startsWith('register'))
  if (volume === undefined) throw new Error('The volume is gone.')
  bench.array.store.commit([bench.array.entry('volumes', { ...volume, ...part })])
}

test('what is changed past Wendrel is found with the change that had set it, and goes once it is set again', async () => {
  await bench.done('rename-volume', renamed('register-main'))
  expect(await drifts()).toEqual([])
  changedThere({ name: 'register-of-somebody' })
  await bench.until(async () => (await drifts()).length === 1, 'it is found')
  const [found] = await drifts()
  expect(found?.finding).toMatchObject({
    title: 'register-of-somebody is not as it was set: its name',
    evidence: expect.stringContaining('it was register-main, and is register-of-somebody'),
    draft: { kind: 'rename-volume', intent: renamed('register-main') },
  })
  await bench.done('rename-volume', renamed('register-main'))
  await bench.until(async () => (await drifts()).length === 0, 'it is cleared')
})

test('another change of the same is no drift; what somebody converts at the system is', async () => {
  await bench.done('convert-volume', { volumeId: bench.ids['volume'], isThin: false })
  await bench.done('convert-volume', { volumeId: bench.ids['volume'], isThin: true })
  expect(await drifts()).toEqual([])
  changedThere({ isThin: false })
  await bench.until(async () => (await drifts()).length === 1, 'it is found')
  expect((await drifts())[0]?.finding.title).toContain('whether it is thin')
  await bench.done('convert-volume', { volumeId: bench.ids['volume'], isThin: true })
  await bench.until(async () => (await drifts()).length === 0, 'it is cleared')
})
