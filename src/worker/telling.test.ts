import { keepSecret } from '@/records/secrets'
import { evidenceOf } from '@/records/changes'
import { latestMessages } from '@/records/telling'
import { blocks, factOf } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const blankRoute = { routeId: '', way: 'webhook', sender: '', recipients: '', userName: '', secretId: '' }
const blankRule = {
  ruleId: '',
  subject: 'findings',
  gravity: 'soon',
  beginsAt: null,
  endsAt: null,
  minutes: null,
  quietFrom: null,
  quietTo: null,
  quietDays: '',
  timeZone: 'UTC',
  isUrgentAlways: false,
  roundAt: null,
}
const messages = () => latestMessages({ database: bench.database })
const addressOf = () => `http://127.0.0.1:${bench.fleet.ports.desk.http}/told`

test('a route is proven by a message that its receiver takes; one that nobody takes is not', async () => {
  bench.fleet.desk.key = 'the key of the desk'
  const secretId = await keepSecret({ database: bench.database }, bench.key, {
    text: 'the key of the desk',
    purpose: 'route',
    madeBy: 'tester',
  })
  const route = { ...blankRoute, name: 'night desk', address: addressOf(), secretId }
  expect(await bench.refused('define-route', { ...route, name: '' })).toEqual(['name'])
  expect(await bench.refused('define-route', { ...route, address: 'nonsense' })).toEqual(['address'])
  expect(await bench.refused('define-route', { ...route, way: 'mail', address: 'smtp://m.example' })).toEqual([
    'recipients',
  ])
  const made = await bench.done('define-route', route)
  bench.ids['route'] = factOf(made, 'routeId')
  expect(bench.fleet.desk.received.at(-1)).toMatchObject({ way: 'webhook', isSigned: true })
  const [evidence] = await evidenceOf({ database: bench.database }, made.id)
  expect(evidence?.measured['answer']).toBe('202 {"taken":true}')
  expect(evidence?.measured['sent']).toContain('POST /told')
  expect(JSON.stringify(evidence)).not.toContain('the key of the desk')
  expect(await bench.refused('define-route', route)).toEqual(['name-free'])
  bench.fleet.desk.refusals = 1
  const deaf = await bench.carriedOut('define-route', { ...route, name: 'deaf' })
  expect(deaf.state).toBe('unproven')
})

test('what is found is told once, with its end, and what is not taken is sent again', async () => {
  expect(await bench.refused('define-rule', { ...blankRule, name: 'x', subject: 'fill', routeIds: [] })).toEqual([
    'begins',
  ])
  const swayed = { ...blankRule, name: 'x', subject: 'fill', beginsAt: 80, endsAt: 90, routeIds: [] }
  expect(await bench.refused('define-rule', swayed)).toEqual(['ends'])
  expect(await bench.refused('define-rule', { ...blankRule, name: 'x', subject: 'round', routeIds: [] })).toEqual([
    'round',
  ])
  await bench.done('define-rule', { ...blankRule, name: 'all that is found', routeIds: [bench.ids['route']] })
  // The route that nobody answered is told of first.
  await bench.until(
    async () => (await messages()).some(each => each.message.subject.includes('deaf') && each.sentAt !== null),
    'what stood already is told',
  )
  bench.fleet.desk.refusals = 1
  const before = bench.fleet.desk.received.length
  bench.fleet.faults.inject({
    target: 'heron',
    kind: 'not-answering',
    milliseconds: 0,
    retryAfterSeconds: 0,
    atRatio: 0,
    drive: '',
    times: 0,
  })
  await bench.until(
    async () =>
      (await messages()).some(
        each => each.message.subject.includes('heron') && each.tries === 1 && each.sentAt === null,
      ),
    'it was not taken the first time',
  )
  await bench.until(
    async () => (await messages()).some(each => each.message.subject.includes('heron') && each.sentAt !== null),
    'it was sent again',
  )
  const told = bench.fleet.desk.received.slice(before).filter(({ text }) => text.includes('heron does not answer'))
  expect(told).toHaveLength(1)
  expect(JSON.parse(told[0]?.text ?? '')).toMatchObject({ state: 'begun', gravity: 'now', rule: 'all that is found' })
  bench.fleet.faults.clear()
})

test('two workers, and one that is started anew, tell each thing once', async () => {
  const another = await bench.anotherWorker()
  await bench.restartWorker()
  await new Promise(resolve => setTimeout(resolve, 11_000))
  const subjects = (await messages())
    .filter(({ message }) => message.state === 'begun')
    .map(({ message }) => message.key)
  expect(new Set(subjects).size).toBe(subjects.length)
  await another.stop()
})

test('a route that is removed is told of no more, and its rule says so before', async () => {
  const { plan } = await bench.drafted('remove-route', { routeId: bench.ids['route'] })
  expect(plan.checks.find(({ rule }) => rule === 'others')).toMatchObject({
    holds: false,
    why: 'all that is found will tell nobody.',
  })
  await bench.done('remove-route', { routeId: bench.ids['route'] })
  expect((await bench.estate()).rules).toMatchObject([{ routeIds: [] }])
})
