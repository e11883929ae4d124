import type { Sequelize } from 'sequelize'
import { listen, openDatabase } from '@/records'
import { ownKey } from '@/records/secrets'

interface Context {
  readonly database: Sequelize
  readonly url: string
  readonly key: Buffer
  readonly listening: ReturnType<typeof listen>
}

/** One connection pool, key and listener for the whole process: Next loads modules once for each bundle, globalThis is one. */
const shared = globalThis as { wendrelContext?: Context }

export function context(): Context {
  const url = process.env['DATABASE_URL'] ?? ''
  shared.wendrelContext ??= {
    database: openDatabase(url),
    url,
    key: ownKey(),
    listening: listen(url),
  }
  return shared.wendrelContext
}
