import type { ChangeState } from '@/core/plan'
import type { ChangeLine } from '@/core/views'
import { cast, literal, Op, where as holds, type WhereOptions } from 'sequelize'
import type { Scope } from '../database'
import { remembered } from '../memory'
import { inside, plain } from '../model'
import { changeModel, type KeptChange } from './models'

const shown = ['id', 'number', 'title', 'state', 'madeAt'] as const
const line = ({ id, number, title, state, madeAt }: Pick<KeptChange, (typeof shown)[number]>): ChangeLine => ({
  id,
  number,
  title,
  state,
  at: madeAt.toISOString(),
})

async function linesOf(scope: Scope, limit: number, where: WhereOptions<KeptChange>): Promise<ChangeLine[]> {
  const found = await changeModel(scope.database).findAll({
    attributes: [...shown],
    where,
    order: [['number', 'DESC']],
    limit,
    ...inside(scope),
  })
  return found.map(each => line(plain(each)))
}

/** The latest changes in a line each: without their plans, which are most of what a change weighs. */
export const changeLines = (
  scope: Scope,
  limit: number,
  where: { readonly state?: ChangeState | ChangeState[]; readonly kind?: string[] } = {},
): Promise<ChangeLine[]> =>
  remembered(scope, `lines ${limit} ${JSON.stringify(where)}`, () => linesOf(scope, limit, where))

/** The latest changes that have looked at an object or made it; found by the indices changes_reads and changes_made. */
export const changesAbout = (scope: Scope, id: string, limit: number): Promise<ChangeLine[]> =>
  linesOf(scope, limit, {
    [Op.or]: [
      holds(literal("plan -> 'reads'"), Op.contains, cast(JSON.stringify([{ id }]), 'jsonb')),
      ...['volumeId', 'poolId', 'systemId'].map(named => ({ facts: { [Op.contains]: { [named]: id } } })),
    ],
  })
