import { emptyEstate, type Estate, type Route, type Rule } from '@/core/estate'
import { sampleId as id } from '@/core/estate/testing/samples'
import { isReady, type Plan } from '@/core/plan'
import { planIntent, readIntent } from '..'

const now = new Date('2026-05-04T10:00:00Z')
const route: Route = {
  id: id(1),
  name: 'Night desk',
  way: 'webhook',
  address: 'https://desk.example/told',
  sender: null,
  recipients: [],
  userName: null,
  revision: 3,
}
const rule: Rule = {
  id: id(2),
  name: 'Pools that fill',
  subject: 'fill',
  gravity: 'soon',
  beginsAt: 90,
  endsAt: 85,
  minutes: 5,
  quietFrom: null,
  quietTo: null,
  quietDays: null,
  timeZone: 'UTC',
  isUrgentAlways: true,
  roundAt: null,
  routeIds: [route.id],
  revision: 1,
}
const estate: Estate = { ...emptyEstate, routes: [route], rules: [rule] }
const planned = (kind: string, intent: object) => planIntent(kind, readIntent(kind, intent), async () => estate, now)
const broken = ({ checks }: Plan, level: 'must' | 'warn' = 'must') =>
  checks.filter(check => !check.holds && check.level === level).map(check => check.rule)

const asRoute = {
  ...{ routeId: '', name: 'Storage team', way: 'webhook', address: 'https://team.example/told' },
  ...{ sender: '', recipients: '', userName: '', secretId: id(9) },
}
const kept: Partial<Rule> = { ...rule }
delete (kept as { id?: string }).id
delete (kept as { revision?: number }).revision
const asRule = { ...kept, ruleId: '', name: 'Another', quietDays: '', quietFrom: null, quietTo: null }

test('a route that is signed and encrypted is ready; without either it is said what that means', async () => {
  const plan = await planned('define-route', asRoute)
  expect(isReady(plan)).toBe(true)
  expect(broken(plan, 'warn')).toEqual([])
  const bare = await planned('define-route', { ...asRoute, address: 'http://team.example/told', secretId: '' })
  expect(isReady(bare)).toBe(true)
  expect(broken(bare, 'warn')).toEqual(['signed', 'encrypted'])
})

test.each([
  ['a name that another has', { name: 'Night desk' }, 'name-free'],
  ['no name', { name: '  ' }, 'name'],
  ['an address of another way', { way: 'syslog' }, 'address'],
  ['an address with a path where none belongs', { way: 'syslog', address: 'udp://log.example/x' }, 'address'],
  ['credentials in the address', { address: 'https://a:b@team.example/' }, 'address'],
  ['mail to nobody', { way: 'mail', address: 'smtp://m.example', sender: 'w@m.example' }, 'recipients'],
  ['mail from nobody', { way: 'mail', address: 'smtp://m.example', recipients: 'a@m.example' }, 'recipients'],
  [
    'what is no address',
    { way: 'mail', address: 'smtp://m.example', sender: 'w@m.example', recipients: 'a@m.example, "b' },
    'recipients',
  ],
  ['a route that is gone', { routeId: id(77) }, 'known'],
])('a route is refused for %s, by its rule', async (_, more, wanted) => {
  expect(broken(await planned('define-route', { ...asRoute, ...more }))).toEqual([wanted])
})

test('a route that is altered keeps its key unless another is given, and rests on what was seen', async () => {
  const plan = await planned('define-route', { ...asRoute, routeId: route.id, name: route.name, secretId: '' })
  expect(plan.title).toBe('Alter the route Night desk')
  expect(plan.reads).toEqual([{ kind: 'route', id: route.id, name: 'Night desk', revision: 3 }])
  expect(plan.steps[0]?.step).toMatchObject({ routeId: route.id, secretId: null, before: { name: 'Night desk' } })
})

test.each([
  ['no name', { name: '' }, ['name']],
  ['a name that another has', { name: 'Pools that fill' }, ['name-free']],
  ['no value', { beginsAt: null, endsAt: null }, ['begins']],
  ['an end on the wrong side', { beginsAt: 80, endsAt: 85 }, ['ends']],
  ['days that end below where they begin', { subject: 'days to limit', beginsAt: 30, endsAt: 20 }, ['ends']],
  ['a round without an hour', { subject: 'round' }, ['round']],
  ['a report without an hour', { subject: 'report' }, ['round']],
  ['half of its quiet hours', { quietFrom: 22 }, ['quiet']],
  ['quiet days that are no days', { quietDays: 'FREQ=MINUTELY' }, ['quiet']],
  ['a zone that there is not', { timeZone: 'Atlantis/Capital' }, ['quiet']],
  ['a route that is gone', { routeIds: [id(55)] }, ['routes']],
])('a rule is refused for %s, by its rule', async (_, more, wanted) => {
  expect(broken(await planned('define-rule', { ...asRule, ...more }))).toEqual(wanted)
})

test('a rule that sways, or tells nobody, may be kept, and says so', async () => {
  const plan = await planned('define-rule', { ...asRule, endsAt: 90, routeIds: [] })
  expect(isReady(plan)).toBe(true)
  expect(broken(plan, 'warn')).toEqual(['apart', 'told'])
})

test('what a rule measures is kept only where it measures, and an hour only where it has one', async () => {
  const after = async (more: object) =>
    ((await planned('define-rule', { ...asRule, ...more })).steps[0]?.step as { readonly after: Rule }).after
  expect(await after({ subject: 'findings', roundAt: 7 })).toMatchObject({
    beginsAt: null,
    endsAt: null,
    roundAt: null,
  })
  expect(await after({ subject: 'round', roundAt: 7 })).toMatchObject({ beginsAt: null, roundAt: 7 })
  expect(await after({})).toMatchObject({ beginsAt: 90, endsAt: 85 })
})

test('before a route goes it is said which rules then tell nobody', async () => {
  const plan = await planned('remove-route', { routeId: route.id })
  expect(plan.checks.find(({ rule: each }) => each === 'others')?.why).toBe('Pools that fill will tell nobody.')
  expect(broken(await planned('remove-route', { routeId: '' }))).toEqual(['route'])
  expect(broken(await planned('remove-rule', { ruleId: id(44) }))).toEqual(['rule'])
  expect(broken(await planned('test-route', { routeId: '' }))).toEqual(['route'])
})
