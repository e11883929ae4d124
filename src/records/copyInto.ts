import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import { from, type CopyStreamQuery } from 'pg-copy-streams'
import type { Scope } from './database'

/** The driver's own connection of a transaction: rows are copied over it, which no statement can say. */
const connectionOf = ({ transaction }: Required<Scope>) =>
  (transaction as unknown as { readonly connection: { readonly query: (copy: CopyStreamQuery) => CopyStreamQuery } })
    .connection

/**
 * Copies rows into a table, within a transaction.
 * @param into the table and its columns, of this project's own words
 * @param lines rows as the text format of COPY has them: fields apart by tabs, each row ended
 */
export const copyInto = (scope: Required<Scope>, into: string, lines: Iterable<string>): Promise<void> =>
  pipeline(Readable.from(lines), connectionOf(scope).query(from(`copy ${into} from stdin`)))

const escapes: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' }

/** A text from outside as a field of a row: whatever stands in it ends neither field nor row. Source: PostgreSQL, COPY, text format. */
export const copiedText = (text: string): string => text.replace(/[\\\t\n\r]/g, each => escapes[each] ?? each)
