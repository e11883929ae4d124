import type { SavedView } from '@/core/views'
import { UniqueConstraintError, type Model } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Scope } from '../database'
import { inside, kept, modelFor } from '../model'

type Row = Model<SavedView, Partial<SavedView>>
/** So many that nobody misses one, so few that they can be listed whole. */
const mostViews = 200

const viewModel = modelFor<SavedView>('saved_views', {
  id: kept.id,
  path: kept.text,
  name: kept.text,
  query: kept.text,
  madeBy: kept.text,
})

const plain = (row: Row) => row.get({ plain: true })

/** The views of one list, by name. */
export async function viewsAt(scope: Scope, path: string): Promise<SavedView[]> {
  const found = await viewModel(scope.database).findAll({
    where: { path },
    order: [['name', 'ASC']],
    limit: mostViews,
    ...inside(scope),
  })
  return found.map(plain)
}

/** @returns why it was not kept, or the view */
export async function keepView(
  scope: Scope,
  view: Omit<SavedView, 'id'>,
): Promise<SavedView | 'name taken' | 'too many'> {
  const model = viewModel(scope.database)
  if ((await model.count({ where: { path: view.path }, ...inside(scope) })) >= mostViews) return 'too many'
  try {
    return plain(await model.create({ id: uuid(), ...view }, inside(scope)))
  } catch (cause) {
    if (cause instanceof UniqueConstraintError) return 'name taken'
    throw cause
  }
}

/** @returns the view that was dropped; undefined where there was none */
export async function dropView(scope: Scope, id: string): Promise<SavedView | undefined> {
  const found = await viewModel(scope.database).findByPk(id, inside(scope))
  if (found === null) return undefined
  await found.destroy(inside(scope))
  return plain(found)
}
