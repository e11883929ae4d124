import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { PrivatePostgres } from '../postgres'

export default async function globalTeardown(): Promise<void> {
  const made = (globalThis as { testPostgres?: { postgres: PrivatePostgres; folder: string } }).testPostgres
  if (made === undefined) return
  made.postgres.stop()
  const pointer = join(made.folder, 'cluster-folder')
  if (existsSync(pointer)) rmSync(readFileSync(pointer, 'utf8'), { recursive: true, force: true })
  rmSync(made.folder, { recursive: true, force: true })
}
