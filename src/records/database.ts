import { toJson } from '@/core/input'
import { WendrelError } from '@/core/errors'
import { remembered } from './memory'
import type { Scope } from './Scope'
import { QueryTypes, Sequelize } from 'sequelize'

/** Opens a pool of connections. Models and statements are made with it, never apart from it. */
export function openDatabase(url: string, connections = 10): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: connections, min: 0, idle: 10_000, acquire: 20_000 },
    // A database that is away for a moment is waited for: what is asked meanwhile succeeds when it is back.
    retry: {
      max: 5,
      match: [
        /ECONNREFUSED/,
        /ECONNRESET/,
        /terminating connection/,
        /the database system is (starting up|shutting down|not yet accepting connections)/,
      ],
      backoffBase: 400,
      backoffExponent: 1.6,
    },
    dialectOptions: { application_name: 'wendrel', keepAlive: true },
  })
}

export type { Scope } from './Scope'

/** Runs a statement that answers rows. Values are bound by position, never written into the text. */
export async function rows<Row extends object>(
  scope: Scope,
  sql: string,
  bind: readonly unknown[] = [],
): Promise<Row[]> {
  const { database, transaction } = scope
  return remembered(scope, `${sql} ${toJson(bind)}`, () =>
    database.query<Row>(sql, { type: QueryTypes.SELECT, bind: [...bind], transaction: transaction ?? null }),
  )
}

/** The first row, if there is one. */
export async function row<Row extends object>(
  scope: Scope,
  sql: string,
  bind: readonly unknown[] = [],
): Promise<Row | undefined> {
  return (await rows<Row>(scope, sql, bind))[0]
}

/** Runs a statement for what it does. */
export async function run({ database, transaction }: Scope, sql: string, bind: readonly unknown[] = []): Promise<void> {
  await database.query(sql, { type: QueryTypes.RAW, bind: [...bind], transaction: transaction ?? null })
}

/** Runs work in one transaction: all of it holds, or none. */
export function inTransaction<T>(database: Sequelize, work: (scope: Required<Scope>) => Promise<T>): Promise<T> {
  return database.transaction(transaction => work({ database, transaction }))
}

/** SQLSTATE classes of a connection that is lost or not to be had. Source: PostgreSQL 15, appendix A. */
const awayStates = /^(08|57P)/
const awayNames = /^Sequelize.*(Connection|Host|AccessDenied)/
const awayCodes = new Set(['ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT', 'EPIPE', 'ENOTFOUND', 'EHOSTUNREACH'])

const layersOf = (cause: unknown): readonly unknown[] => {
  const layers: unknown[] = [cause]
  for (let each = cause; each instanceof Error && layers.length < 6; layers.push(each))
    each = each.cause ?? (each as { parent?: unknown }).parent
  return layers
}

/** How the driver says, without a code, that a connection it had is gone. */
const awayWords = /^(Connection terminated|Client (has encountered a connection error|was closed))/

/** Whether the database is away or ended the connection, so that the same may succeed later. */
export const isDatabaseAway = (cause: unknown): boolean =>
  !(cause instanceof WendrelError) && // a system that cannot be reached is another matter
  layersOf(cause).some(layer => {
    if (!(layer instanceof Error)) return false
    const code = (layer as { code?: unknown }).code
    if (awayNames.test(layer.name) || awayWords.test(layer.message)) return true
    return typeof code === 'string' && (awayStates.test(code) || awayCodes.has(code))
  })

/** Whether two transactions were in each other's way, so that the same may succeed at once. */
export const isConflict = (cause: unknown): boolean =>
  layersOf(cause).some(layer => /^40(001|P01)$/.test(String((layer as { code?: unknown } | undefined)?.code ?? '')))

export { toJson }
