import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { openDatabase } from '../database'
import { migrate } from '../migrations/migrate'

/** A database of the test cluster without anything in it. @returns where it is */
export async function emptyDatabase(): Promise<string> {
  const base = process.env['TEST_POSTGRES_URL'] ?? ''
  const name = `test_${randomBytes(6).toString('hex')}`
  const owner = openDatabase(base.replace(/\/[^/]*$/, '/postgres'), 1)
  const own = new URL(process.env['TEST_POSTGRES_OWN_URL'] ?? '')
  await owner.query(`create database ${name} owner ${own.username}`)
  await owner.close()
  own.pathname = `/${name}`
  return own.href
}

/** An empty, migrated database of the test cluster, for one test file. */
export async function freshDatabase(): Promise<{
  readonly database: Sequelize
  readonly url: string
  readonly close: () => Promise<void>
}> {
  const url = await emptyDatabase()
  const database = openDatabase(url)
  await migrate(database, url)
  return { database, url, close: () => database.close() }
}
