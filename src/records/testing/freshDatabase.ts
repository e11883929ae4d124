import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { openDatabase } from '../database'
import { migrate } from '../migrations/migrate'

/** What most databases of the tests are copied from: migrating each would take ten times as long. */
const migrated = 'test_migrated'
const lockNumber = 7_261_590

/** Works in the test cluster as its owner, in one connection. */
async function asOwner<T>(work: (owner: Sequelize) => Promise<T>): Promise<T> {
  const base = process.env['TEST_POSTGRES_URL'] ?? ''
  const owner = openDatabase(base.replace(/\/[^/]*$/, '/postgres'), 1)
  try {
    return await work(owner)
  } finally {
    await owner.close()
  }
}

const urlOf = (name: string): string => {
  const own = new URL(process.env['TEST_POSTGRES_OWN_URL'] ?? '')
  own.pathname = `/${name}`
  return own.href
}
const nameOf = (url: string): string => new URL(url).pathname.slice(1)

/** @param from the database that it is a copy of @returns where it is */
async function create(owner: Sequelize, from = 'template1'): Promise<string> {
  const url = urlOf(`test_${randomBytes(6).toString('hex')}`)
  const { username } = new URL(url)
  await owner.query(`create database ${nameOf(url)} owner ${username} template ${from} strategy file_copy`)
  return url
}

/**
 * Makes a database to copy, unless another test file has: one file at a time makes what has to be made once.
 * @param name of the database
 * @param make makes it under another name, and leaves no connection to it open @returns where it is
 */
export const madeOnce = (name: string, make: () => Promise<string>): Promise<void> =>
  asOwner(owner =>
    // A connection that only waits is closed by its pool, and its lock would go with it: one in a transaction stays.
    owner.transaction(async transaction => {
      await owner.query(`select pg_advisory_xact_lock(${lockNumber}, hashtext('${name}'))`, { transaction })
      const [found] = await owner.query(`select 1 from pg_database where datname = '${name}'`, { transaction })
      if (found.length > 0) return
      const url = await make()
      await asOwner(other => other.query(`alter database ${nameOf(url)} rename to ${name}`))
    }),
  )

/** A database of the test cluster without anything in it. @returns where it is */
export const emptyDatabase = (): Promise<string> => asOwner(owner => create(owner))

interface TestDatabase {
  readonly database: Sequelize
  readonly url: string
  readonly close: () => Promise<void>
}

/** A copy of a database that was made once. */
export async function copiedDatabase(name: string): Promise<TestDatabase> {
  const url = await asOwner(owner => create(owner, name))
  const database = openDatabase(url)
  return { database, url, close: () => database.close() }
}

/** An empty, migrated database of the test cluster, for one test file. */
export async function freshDatabase(): Promise<TestDatabase> {
  await madeOnce(migrated, async () => {
    const url = await emptyDatabase()
    const database = openDatabase(url)
    await migrate(database, url).finally(() => database.close())
    return url
  })
  return copiedDatabase(migrated)
}
