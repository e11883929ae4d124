import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startPostgres, type PrivatePostgres } from '../postgres'

/** One cluster for all unit tests; each test file that needs records makes a database of its own in it. */
export default async function globalSetup(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-test-'))
  const postgres = await startPostgres(folder)
  process.env['TEST_POSTGRES_URL'] = postgres.url
  const shared = globalThis as { testPostgres?: { postgres: PrivatePostgres; folder: string } }
  shared.testPostgres = { postgres, folder }
}
