import { inTransaction, rows, run, type Scope } from '../database'
import { freshDatabase } from '../testing'
import { audit, auditAfter, auditEntries, firstBrokenEntry, hashOf, isNotedLately, noEntryYet } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let scope: Scope
beforeAll(async () => {
  records = await freshDatabase()
  scope = { database: records.database }
})
afterAll(() => records.close())

const noted = (action: string, subject = 'change 1') =>
  inTransaction(records.database, inside =>
    audit(inside, { who: 'keeper', address: '192.0.2.1', action, subject, detail: { title: 'Map it' } }),
  )

test('acts in parallel make one chain, each link checked by whoever has the export', async () => {
  await Promise.all(Array.from({ length: 25 }, (_, index) => noted(`act.${index}`)))
  const all = await auditAfter(scope, 0, 100)
  expect(all.map(entry => entry.id)).toEqual(Array.from({ length: 25 }, (_, index) => index + 1))
  let previous = noEntryYet
  for (const line of all.map(entry => JSON.stringify(entry))) {
    const { hash, ...rest } = JSON.parse(line) as (typeof all)[number]
    expect([rest.previousHash, hash]).toEqual([previous, hashOf(rest)])
    previous = hash
  }
  expect(await firstBrokenEntry(scope)).toBeUndefined()
  expect((await auditEntries(scope, 6, 3)).map(entry => entry.id)).toEqual([5, 4, 3])
})

test('an act that is not done is not on record', async () => {
  const undone = inTransaction(records.database, async inside => {
    await audit(inside, { who: 'keeper', address: null, action: 'never.done', subject: 'x' })
    throw new Error('after all not')
  })
  await expect(undone).rejects.toThrow('after all not')
  expect(await rows(scope, `select id from audit where action = 'never.done'`)).toEqual([])
})

test('what is noted once in a while is found again by who, what and when', async () => {
  await noted('change.altered', 'change 7')
  const of = (who: string, subject: string) => isNotedLately(scope, { who, action: 'change.altered', subject }, 60)
  expect([await of('keeper', 'change 7'), await of('mara', 'change 7'), await of('keeper', 'change 8')]).toEqual([
    true,
    false,
    false,
  ])
})

test('the record is only ever added to; who gets round that is found out by the chain', async () => {
  await expect(run(scope, `update audit set who = 'nobody' where id = 3`)).rejects.toThrow('only ever added to')
  await expect(run(scope, 'delete from audit where id = 3')).rejects.toThrow('only ever added to')
  await expect(run(scope, 'truncate audit')).rejects.toThrow('only ever added to')
  await run(scope, 'alter table audit disable trigger all')
  await run(scope, `update audit set who = 'nobody' where id = 3`)
  expect(await firstBrokenEntry(scope)).toBe(3)
  await run(scope, `update audit set who = 'keeper' where id = 3`)
  expect(await firstBrokenEntry(scope)).toBeUndefined()
  await run(scope, 'delete from audit where id = 9')
  expect(await firstBrokenEntry(scope)).toBe(10)
})
