import { emptyEstate, type Estate, type Host } from '@/core/estate'
import { sampleId as id, sampleSystem } from '@/core/estate/testing/samples'
import { isReady } from '@/core/plan'
import { planIntent, readIntent } from '..'

const name = 'iqn.2026-01.example:register-1'
const host: Host = {
  ...{
    id: id(4),
    hostGroupId: id(3),
    name: 'register-1',
    agentAddress: 'http://a',
    operatingSystem: null,
    revision: 1,
  },
  ...{ initiators: [name, '50:01:40:5c:0f:fe:e0:01'], addresses: [], signIn: 'nothing', siteId: null },
}
const letting = (number: number, systemName: string, ...initiators: string[]) =>
  sampleSystem({ id: id(number), name: systemName, accessGroups: [{ name: 'register', initiators }] })
const estate: Estate = {
  ...emptyEstate,
  systems: [letting(1, 'heron', name), letting(2, 'bittern'), letting(7, 'curlew', name)],
  hosts: [host],
}
const planned = (intent: object, more: Partial<Estate> = {}) =>
  planIntent(
    'set-host-sign-in',
    readIntent('set-host-sign-in', {
      ...{ hostId: id(4), signIn: 'one-way', secretId: id(50), systemSecretId: '', ...intent },
    }),
    () => Promise.resolve({ ...estate, ...more }),
    new Date('2026-05-05T10:00:00Z'),
  )
const broken = async (intent: object, more: Partial<Estate> = {}) =>
  (await planned(intent, more)).checks.filter(check => !check.holds).map(check => check.rule)

test('the host learns its secret before the systems that let it in ask for it; who does not know it is left alone', async () => {
  const plan = await planned({})
  expect(isReady(plan)).toBe(true)
  expect(plan.steps.map(({ words }) => words)).toEqual([
    'register-1 learns its secret',
    'heron asks it for its secret',
    'curlew asks it for its secret',
    'Keep it with the host',
  ])
  // Over Fibre Channel nothing is asked by CHAP.
  expect(plan.steps[1]?.step).toMatchObject({ initiators: [name] })
  expect(plan.reads.map(each => each.name)).toEqual(['register-1', 'heron', 'curlew'])
})

test('what is asked for no longer is forgotten by the host last', async () => {
  const plan = await planned({ signIn: 'nothing', secretId: '' }, { hosts: [{ ...host, signIn: 'mutual' }] })
  expect(plan.steps.map(({ name: step }) => step)).toEqual(['system', 'system', 'host', 'records'])
  expect(plan.effects[0]).toMatchObject({ before: 'the host and its systems', after: 'nobody' })
})

test.each([
  ['no secret', { secretId: '' }, {}, ['secret']],
  ['no second secret where both prove themselves', { signIn: 'mutual' }, {}, ['system-secret']],
  ['one secret for both', { signIn: 'mutual', systemSecretId: id(50) }, {}, ['system-secret']],
  [
    'a host by Fibre Channel only',
    {},
    { hosts: [{ ...host, initiators: [host.initiators[1] ?? ''] }] },
    ['over-ip', 'let-in'],
  ],
  ['a host that nothing lets in', {}, { systems: [letting(2, 'bittern')] }, ['let-in']],
  ['a host without an agent', {}, { hosts: [{ ...host, agentAddress: null }] }, ['agent']],
  [
    'a system that is silent',
    {},
    { systems: [{ ...letting(1, 'heron', name), reach: 'not answering' as const }] },
    ['system-answers'],
  ],
  ['a host that is gone', { hostId: id(99) }, {}, ['host']],
])('%s', async (_, intent, more, rules) => expect(await broken(intent, more)).toEqual(rules))
