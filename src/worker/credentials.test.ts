import { keepSecret } from '@/records/secrets'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
}, 120_000)
afterAll(() => bench.close())

const keep = (text: string) =>
  keepSecret({ database: bench.database }, bench.key, { text, purpose: 'agent', madeBy: 'test' })
const intent = (more: object = {}) => ({
  agentAddress: `http://127.0.0.1:${bench.fleet.ports.hosts['desk-1']}`,
  groupName: 'reading-room',
  ...more,
})

test('an agent that asks for a credential is registered by one that is kept sealed, and asked by it from then on', async () => {
  expect((await bench.agent('desk-1', '/credential', { credential: 'short' })).status).toBe(400)
  expect((await bench.agent('desk-1', '/credential', { credential: 'a good long one' })).status).toBe(200)
  const without = await bench.carriedOut('register-host', intent())
  expect(without).toMatchObject({
    state: 'failed',
    refusal: { why: expect.stringContaining('does not know who asks') as string },
  })
  const wrong = await bench.carriedOut('register-host', intent({ secretId: await keep('another one') }))
  expect(wrong.state).toBe('failed')
  const gone = await bench.carriedOut('register-host', intent({ secretId: '01890000-0000-7000-8000-000000000000' }))
  expect(gone).toMatchObject({
    state: 'failed',
    refusal: { why: expect.stringContaining('not there any more') as string },
  })
  const secretId = await keep('a good long one')
  const draft = await bench.drafted('register-host', intent({ secretId }))
  expect(draft.plan.checks.find(({ rule }) => rule === 'sealed-way')).toMatchObject({ holds: false, level: 'warn' })
  expect(JSON.stringify(draft)).not.toContain('a good long one')
  await bench.done('register-host', intent({ secretId }))
  // What is proven on it later is asked by the same credential.
  const { hostGroups } = await bench.estate()
  await bench.done('map-volume', {
    volumeId: bench.ids['volume'],
    hostGroupId: hostGroups.find(({ name }) => name === 'reading-room')?.id,
  })
})
