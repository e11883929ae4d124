import type { SavedView } from '@/core/views'
import { DataTypes, UniqueConstraintError, type Model, type ModelStatic, type Sequelize } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Scope } from '../database'

type Row = Model<SavedView>
/** So many that nobody misses one, so few that they can be listed whole. */
const mostViews = 200

/** Defined once for each database, as every model is. */
function viewModel(database: Sequelize): ModelStatic<Row> {
  if (!database.isDefined('savedViews'))
    database.define<Row>(
      'savedViews',
      {
        id: { type: DataTypes.UUID, primaryKey: true },
        path: { type: DataTypes.TEXT, allowNull: false },
        name: { type: DataTypes.TEXT, allowNull: false },
        query: { type: DataTypes.TEXT, allowNull: false },
        madeBy: { type: DataTypes.TEXT, allowNull: false, field: 'made_by' },
      },
      { tableName: 'saved_views', timestamps: false },
    )
  return database.model('savedViews') as ModelStatic<Row>
}

const plain = (row: Row) => row.get({ plain: true })

/** The views of one list, by name. */
export async function viewsAt({ database, transaction }: Scope, path: string): Promise<SavedView[]> {
  const found = await viewModel(database).findAll({
    where: { path },
    order: [['name', 'ASC']],
    limit: mostViews,
    transaction: transaction ?? null,
  })
  return found.map(plain)
}

/** @returns why it was not kept, or the view */
export async function keepView(
  scope: Scope,
  view: Omit<SavedView, 'id'>,
): Promise<SavedView | 'name taken' | 'too many'> {
  const { database, transaction } = scope
  const model = viewModel(database)
  const inside = { transaction: transaction ?? null }
  if ((await model.count({ where: { path: view.path }, ...inside })) >= mostViews) return 'too many'
  try {
    return plain(await model.create({ id: uuid(), ...view }, inside))
  } catch (cause) {
    if (cause instanceof UniqueConstraintError) return 'name taken'
    throw cause
  }
}

/** @returns the view that was dropped; undefined where there was none */
export async function dropView({ database, transaction }: Scope, id: string): Promise<SavedView | undefined> {
  const inside = { transaction: transaction ?? null }
  const found = await viewModel(database).findByPk(id, inside)
  if (found === null) return undefined
  await found.destroy(inside)
  return plain(found)
}
