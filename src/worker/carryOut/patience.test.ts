import { DatabaseError, ConnectionRefusedError } from 'sequelize'
import { NotReached } from '@/connectors/testing/causes'
import { WendrelError } from '@/core/errors'
import { isOurs, Later, Patience, withPatience } from './patience'

const never = new AbortController().signal
const minute = 60_000
const away = () => new NotReached('http://heron', 'Nothing listens.')
/** An error of the database's as Sequelize hands it on. */
const database = (code: string) =>
  new DatabaseError(Object.assign(new Error('words of the database'), { code, sql: '' }))

test.each(['08006', '57P01', '57P03', '40001', '40P01'])('SQLSTATE %s is waited for', code =>
  expect(isOurs(database(code))).toBe(true),
)
test.each(['23505', '22P02', '22021', '42P01', '53100'])('SQLSTATE %s ends the change with its reason', code =>
  expect(isOurs(database(code))).toBe(false),
)

test('a database that refuses connections is ours, a system that does is not', () => {
  expect(isOurs(new ConnectionRefusedError(Object.assign(new Error('x'), { code: 'ECONNREFUSED' })))).toBe(true)
  expect(isOurs(away())).toBe(false)
  expect(isOurs(new TypeError('x is not a function'))).toBe(false)
})

test('what fails in passing is tried a few times at once, and later after that: no slot is held', async () => {
  const patience = new Patience({})
  let tries = 0
  const told: unknown[] = []
  const work = withPatience(
    () => {
      tries += 1
      return Promise.reject(away())
    },
    patience,
    cause => Promise.resolve(void told.push(cause)),
    never,
  )
  await expect(work).rejects.toBeInstanceOf(Later)
  expect([tries, told.length]).toEqual([3, 3])
})

test('what does not pass is not tried again', async () => {
  class Refused extends WendrelError {
    readonly code = 'some.refusal'
  }
  let tries = 0
  const work = withPatience(
    () => {
      tries += 1
      return Promise.reject(new Refused({ what: 'w', why: 'y', remedy: 'r' }))
    },
    new Patience({}),
    () => Promise.resolve(),
    never,
  )
  await expect(work).rejects.toBeInstanceOf(Refused)
  expect(tries).toBe(1)
})

const system = (answers: { read: () => Promise<string>; row: { probe: () => Promise<string> } }) => answers

test('patience is counted for each kind of call, and restarts at each good answer of that kind', async () => {
  let isAway = true
  const answer = () => (isAway ? Promise.reject(away()) : Promise.resolve('here'))
  const patience = new Patience({ 'heron.read': new Date(Date.now() - 11 * minute).toISOString() })
  const counted = patience.counted(system({ read: answer, row: { probe: answer } }), 'heron')
  await expect(counted.row.probe()).rejects.toThrow()
  expect(patience.isOver(new Date())).toBe(false)
  await expect(counted.read()).rejects.toThrow()
  expect(patience.isOver(new Date())).toBe(true)
  isAway = false
  expect(await counted.read()).toBe('here')
  expect(Object.keys(patience.failing)).toEqual(['heron.row.probe'])
  isAway = true
  await expect(counted.read()).rejects.toThrow()
  expect(patience.isOver(new Date())).toBe(false)
  expect(patience.isOver(new Date(Date.now() + 11 * minute))).toBe(true)
})
