import { those } from '@/core/estate'
import { rows, run } from '@/records/database'
import { keepSecret } from '@/records/secrets'
import { evidenceOf } from '@/records/changes'
import { setSetting } from '@/records'
import { blocks } from './testing/blocks'
import { World } from './World'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const keep = (text: string, purpose: 'agent' | 'chap' = 'agent') =>
  keepSecret({ database: bench.database }, bench.key, { text, purpose, madeBy: 'test' })
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

test('a host and its system prove themselves by CHAP: who shows another secret is not let in, and a system that lets anybody in is found out', async () => {
  const hostId = bench.ids['register-1']
  const [secret, systemSecret] = ['a-secret-of-16-c', 'another-of-16-ch']
  const mutual = {
    ...{ hostId, signIn: 'mutual' },
    ...{ secretId: await keep(secret, 'chap'), systemSecretId: await keep(systemSecret, 'chap') },
  }
  const change = await bench.done('set-host-sign-in', mutual)
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ holds }) => holds)).toEqual([true, true, true, true, true, true])
  expect(JSON.stringify([change, evidence])).not.toContain(secret)
  const target = String(
    (await bench.estate([{ kind: 'ports', field: 'systemId', values: [bench.ids['heron'] ?? ''] }])).ports[0]
      ?.targetName,
  )
  const tries = (secrets: object | null) => bench.agent('register-1', '/logins/try', { target, secrets })
  expect(await tries({ secret, systemSecret })).toMatchObject({ isLetIn: true })
  expect(await tries({ secret: systemSecret, systemSecret })).toMatchObject({ isLetIn: false })
  // Its volumes are proven on it as before.
  await bench.done('expand-volume', { volumeId: bench.ids['volume'], size: '96 MiB' })

  // A system that lets it in later asks it too, before it shows it anything.
  const systemId = await bench.registered('bittern')
  const { hosts, ports, volumes } = await bench.estate([
    those('volumes', 'systemId', systemId),
    those('ports', 'systemId', systemId),
  ])
  const mapped = await bench.done('map-volume', {
    volumeId: volumes[0]?.id,
    hostGroupId: hosts.find(({ id }) => id === hostId)?.hostGroupId,
  })
  const said = await evidenceOf({ database: bench.database }, mapped.id)
  expect(said.filter(({ claim }) => claim.includes('has to prove itself'))).toMatchObject([
    { holds: true, measured: { stated: 'mutual', asked: 'mutual' } },
  ])
  const there = (shown: object | null) =>
    bench.agent('register-1', '/logins/try', { target: ports[0]?.targetName, secrets: shown })
  expect(await there(null)).toMatchObject({ isLetIn: false })
  expect(await there({ secret, systemSecret })).toMatchObject({ isLetIn: true })
  // Where its secret is kept no more, nothing is shown: the system would let in whoever bears its name.
  const scope = { database: bench.database }
  const [was] = await rows<{ readonly id: string }>(scope, 'select sign_in_secret_id as id from hosts where id = $1', [
    hostId,
  ])
  await run(scope, "update hosts set sign_in = 'one-way', sign_in_secret_id = null where id = $1", [hostId])
  const unkept = await bench.carriedOut('map-volume', {
    volumeId: volumes[1]?.id,
    hostGroupId: hosts.find(({ id }) => id === hostId)?.hostGroupId,
  })
  expect(unkept).toMatchObject({ state: 'failed', refusal: { code: 'change.secret-gone' } })
  await run(scope, "update hosts set sign_in = 'mutual', sign_in_secret_id = $2 where id = $1", [hostId, was?.id])

  const same = await bench.carriedOut('set-host-sign-in', { ...mutual, systemSecretId: await keep(secret, 'chap') })
  expect(same).toMatchObject({ state: 'failed', refusal: { code: 'change.same-secret' } })
  expect(await tries({ secret, systemSecret })).toMatchObject({ isLetIn: true })

  bench.fleet.faults.inject({
    ...{
      target: 'heron',
      kind: 'secret-ignored',
      milliseconds: 0,
      retryAfterSeconds: 0,
      atRatio: 0,
      drive: '',
      times: 0,
    },
  })
  const lax = await bench.carriedOut('set-host-sign-in', { ...mutual, signIn: 'one-way', systemSecretId: '' })
  bench.fleet.faults.clear()
  expect(lax.state).toBe('unproven')

  await bench.done('set-host-sign-in', { hostId, signIn: 'nothing', secretId: '', systemSecretId: '' })
  expect(await tries(null)).toMatchObject({ isLetIn: true })
})

test('two that find a way to a system altered at once get one new way, and the session of the old one is ended', async () => {
  const scope = { database: bench.database }
  const world = new World(bench.database, '', bench.key, new AbortController().signal)
  const id = bench.ids['heron'] ?? ''
  const before = await world.system(id)
  expect(await world.system(id)).toBe(before)
  const ended = jest.spyOn(before, 'signOut')
  await setSetting(scope, 'addresses', '127.0.0.0/8, 10.0.0.0/8')
  const [one, other] = await Promise.all([world.system(id), world.system(id)])
  expect(one).not.toBe(before)
  expect(other).toBe(one)
  expect(ended).toHaveBeenCalledTimes(1)
  await setSetting(scope, 'addresses', '127.0.0.0/8')
  await world.leave()
})
