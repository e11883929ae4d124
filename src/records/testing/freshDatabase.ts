import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { openDatabase } from '../database'
import { migrate } from '../migrations/migrate'

/** What all databases of the tests are copied from: migrating each would take ten times as long. */
const pattern = 'test_pattern'
const lockNumber = 7_261_590

/** Works in the test cluster as its owner. */
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

/** @param from the database that it is a copy of */
async function create(owner: Sequelize, name: string, from = 'template1'): Promise<void> {
  const { username } = new URL(urlOf(name))
  await owner.query(`create database ${name} owner ${username} template ${from} strategy file_copy`)
}

/** Makes the pattern, unless another test file has. */
const ensurePattern = (owner: Sequelize) =>
  owner.query(`select pg_advisory_lock(${lockNumber})`).then(async () => {
    const [found] = await owner.query(`select 1 from pg_database where datname = '${pattern}'`)
    if (found.length > 0) return
    const unfinished = `${pattern}_${randomBytes(6).toString('hex')}`
    await create(owner, unfinished)
    const database = openDatabase(urlOf(unfinished))
    await migrate(database, urlOf(unfinished)).finally(() => database.close())
    await owner.query(`alter database ${unfinished} rename to ${pattern}`)
  })

const someName = () => `test_${randomBytes(6).toString('hex')}`

/** A database of the test cluster without anything in it. @returns where it is */
export async function emptyDatabase(): Promise<string> {
  const name = someName()
  await asOwner(owner => create(owner, name))
  return urlOf(name)
}

/** An empty, migrated database of the test cluster, for one test file. */
export async function freshDatabase(): Promise<{
  readonly database: Sequelize
  readonly url: string
  readonly close: () => Promise<void>
}> {
  const name = someName()
  await asOwner(async owner => {
    // The lock goes with the owner's connection, of which there is one.
    await ensurePattern(owner)
    await create(owner, name, pattern)
  })
  const url = urlOf(name)
  const database = openDatabase(url)
  return { database, url, close: () => database.close() }
}
