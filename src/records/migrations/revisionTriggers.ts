import { kindList, type ObjectKind } from '@/core/estate'
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import { columnOf, columnsOf, tableOf } from '../objects'

/**
 * Columns that count up no revision: what the kind says moves, and what is kept beside the model (credentials, numbers of readings), on
 * which no plan rests.
 */
function silentColumns(kind: ObjectKind, inTable: readonly string[]): string[] {
  const modelled = new Set(columnsOf(kind).map(({ field }) => columnOf(field)))
  const moving = (kind.moving as readonly string[]).map(columnOf)
  return [...new Set(['revision', ...moving, ...inTable.filter(column => !modelled.has(column))])].sort()
}

/** Sees to it that revisions are counted up as the kinds say now; a table whose trigger says so already is not touched. */
export async function keepRevisionTriggers(database: Sequelize, transaction: Transaction): Promise<void> {
  const select = { type: QueryTypes.SELECT, transaction } as const
  const columns = await database.query<{ readonly table: string; readonly columns: string[] }>(
    `select table_name as "table", array_agg(column_name::text) as columns from information_schema.columns
     where table_schema = current_schema() group by table_name`,
    select,
  )
  const triggers = await database.query<{ readonly table: string; readonly silent: string }>(
    `select relname as "table", convert_from(substring(tgargs for length(tgargs) - 1), 'UTF8') as silent
     from pg_trigger join pg_class on pg_class.oid = tgrelid where tgname = 'revision' and not tgisinternal`,
    select,
  )
  for (const kind of kindList) {
    const table = tableOf(kind.name)
    const inTable = columns.find(each => each.table === table)?.columns ?? []
    const silent = `{${silentColumns(kind, inTable).join(',')}}`
    if (triggers.find(each => each.table === table)?.silent === silent) continue
    await database.query(
      `create or replace trigger revision before update on ${table} for each row execute function bump_revision('${silent}')`,
      { transaction },
    )
  }
}
