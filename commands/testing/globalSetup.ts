import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureOwnDatabase, startPostgres, type PrivatePostgres } from '../postgres'

/** One cluster for all unit tests; each test file that needs records makes a database of its own in it. */
export default async function globalSetup(): Promise<void> {
  process.env['WENDREL_FLUSH'] = 'none'
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-test-'))
  const postgres = await startPostgres(folder)
  process.env['TEST_POSTGRES_URL'] = postgres.ownerUrl
  // What test files make once and copy lies here.
  process.env['TEST_FOLDER'] = folder
  // Tests work under the role that Wendrel works under, so that what it may not do fails here first.
  process.env['TEST_POSTGRES_OWN_URL'] = await ensureOwnDatabase(postgres.ownerUrl, 'test')
  const shared = globalThis as { testPostgres?: { postgres: PrivatePostgres; folder: string } }
  shared.testPostgres = { postgres, folder }
}
