import type { Sequelize } from 'sequelize'
import { listen, Memory, openDatabase } from '@/records'
import { ownKey } from '@/records/secrets'

interface Context {
  readonly database: Sequelize
  readonly url: string
  readonly key: Buffer
  readonly listening: ReturnType<typeof listen>
  /** What pages have read of the records, for as long as it holds. */
  readonly memory: Memory
}

/** One connection pool, key and listener for the whole process: Next loads modules once for each bundle, globalThis is one. */
const shared = globalThis as { wendrelContext?: Context }

export function context(): Context {
  const url = process.env['DATABASE_URL'] ?? ''
  shared.wendrelContext ??= opened(url)
  return shared.wendrelContext
}

function opened(url: string): Context {
  const listening = listen(url)
  const memory = new Memory(listening.isListening)
  // Before any page hears of it: whoever reads anew for a notice reads what it told of.
  listening.heard.prependListener('told', () => memory.forget())
  return { database: openDatabase(url), url, key: ownKey(), listening, memory }
}
