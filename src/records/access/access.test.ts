import type { Sequelize } from 'sequelize'
import { row, rows, run, type Scope } from '../database'
import { freshDatabase } from '../testing'
import {
  addAdministrator,
  administratorOf,
  bearerOf,
  closeOtherSessions,
  countAttempt,
  isSessionOpen,
  makeToken,
  openSession,
  succeeded,
  waitSeconds,
  type Attempt,
} from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let database: Sequelize
let scope: Scope
let keeper = ''
beforeAll(async () => {
  records = await freshDatabase()
  database = records.database
  scope = { database }
  keeper = (await addAdministrator(scope, 'keeper', 'hash')) ?? ''
})
afterAll(() => records.close())

const guess = (more: Partial<Attempt> = {}): Attempt => ({
  purpose: 'sign-in',
  name: 'keeper',
  address: '203.0.113.7',
  device: undefined,
  ...more,
})
const isLet = async (attempt: Attempt) => 'id' in (await countAttempt(database, attempt))
const forget = () => run(scope, 'delete from sign_in_attempts')

test('guesses in parallel cannot outrun the count', async () => {
  const all = await Promise.all(Array.from({ length: 40 }, () => isLet(guess())))
  expect(all.filter(Boolean)).toHaveLength(3)
  await forget()
})

test('each failure beyond the free ones doubles the wait, up to five minutes', () => {
  expect([2, 3, 4, 5].map(count => waitSeconds(count, 3, 0))).toEqual([0, 2, 4, 8])
  expect(waitSeconds(60, 3, 0)).toBe(300)
  expect(waitSeconds(4, 3, 3)).toBe(1)
  expect(waitSeconds(4, 3, 5)).toBe(0)
})

test('an outsider who guesses does not shut out the browser that has come in before', async () => {
  for (let from = 0; from < 30; from += 1) await isLet(guess({ address: `198.51.100.${from}` }))
  expect(await isLet(guess({ address: '192.0.2.1' }))).toBe(false)
  expect(await isLet(guess({ address: '192.0.2.1', device: 'known here' }))).toBe(true)
  await forget()
})

test('one address that tries many names is throttled, and the others are not', async () => {
  for (let name = 0; name < 20; name += 1) await isLet(guess({ name: `name-${name}` }))
  expect(await isLet(guess({ name: 'another' }))).toBe(false)
  expect(await isLet(guess({ name: 'another', address: '192.0.2.9' }))).toBe(true)
  await forget()
})

test('a success ends the count of its pair, and the first code is counted apart', async () => {
  for (let each = 0; each < 2; each += 1) await isLet(guess())
  const third = await countAttempt(database, guess())
  if ('id' in third) await succeeded(scope, third.id)
  expect(await isLet(guess())).toBe(true)
  for (let each = 0; each < 3; each += 1) await isLet(guess({ purpose: 'first-code', name: '' }))
  expect(await isLet(guess({ purpose: 'first-code', name: '' }))).toBe(false)
  expect(await isLet(guess())).toBe(true)
  await forget()
})

test('attempts are not kept for ever', async () => {
  await isLet(guess())
  await run(scope, `update sign_in_attempts set at = now() - interval '2 days'`)
  await isLet(guess())
  expect(await rows(scope, 'select id from sign_in_attempts')).toHaveLength(1)
  await forget()
})

test('a new session ends the one that the browser had; however busy, a session has an end', async () => {
  const first = await openSession(scope, keeper, undefined)
  const second = await openSession(scope, keeper, first)
  expect(await administratorOf(scope, first)).toBeUndefined()
  expect(await administratorOf(scope, second)).toMatchObject({ name: 'keeper' })
  await run(scope, `update sessions set ends_at = now() - interval '1 second', used_at = now()`)
  expect([await administratorOf(scope, second), await isSessionOpen(scope, second)]).toEqual([undefined, false])
})

test('asking whether a session holds does not keep it alive; an idle one ends', async () => {
  const session = await openSession(scope, keeper, undefined)
  await run(scope, `update sessions set used_at = now() - interval '11 hours 59 minutes'`)
  expect(await isSessionOpen(scope, session)).toBe(true)
  await run(scope, `update sessions set used_at = used_at - interval '2 minutes'`)
  expect(await isSessionOpen(scope, session)).toBe(false)
})

test('a changed password ends the other sessions and keeps the own', async () => {
  const [mine, other] = [await openSession(scope, keeper, undefined), await openSession(scope, keeper, undefined)]
  await closeOtherSessions(scope, keeper, mine)
  expect([await isSessionOpen(scope, mine), await isSessionOpen(scope, other)]).toEqual([true, false])
})

test('the use of a token is noted once a minute, and nobody waits for another who notes it', async () => {
  const token = await makeToken(scope, keeper, 'collector')
  const used = () =>
    row<{ at: Date | null; by: string }>(scope, 'select used_at as at, xmin::text as by from api_tokens')
  await database.transaction(async transaction => {
    await run({ database, transaction }, 'select 1 from api_tokens for update')
    expect(await bearerOf(scope, token)).toMatchObject({ name: 'keeper' })
    expect(await used()).toMatchObject({ at: null })
  })
  await Promise.all(Array.from({ length: 20 }, () => bearerOf(scope, token)))
  const first = await used()
  expect(first?.at).toBeInstanceOf(Date)
  await bearerOf(scope, token)
  expect(await used()).toEqual(first)
  await run(scope, `update api_tokens set used_at = now() - interval '61 seconds'`)
  await bearerOf(scope, token)
  expect((await used())?.at?.getTime()).toBeGreaterThanOrEqual(first?.at?.getTime() ?? Infinity)
})

test('the role under which Wendrel works owns its database and nothing more', async () => {
  const [role] = await rows<object>(
    scope,
    'select rolsuper, rolcreaterole, rolcreatedb, rolreplication, rolbypassrls from pg_roles where rolname = current_user',
  )
  expect(Object.values(role ?? { none: true })).toEqual([false, false, false, false, false])
  await expect(run(scope, 'create role intruder')).rejects.toThrow()
  await expect(run(scope, 'create database another')).rejects.toThrow()
  await expect(run(scope, `copy administrators to program 'cat'`)).rejects.toThrow()
})
