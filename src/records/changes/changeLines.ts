import type { ChangeState } from '@/core/plan'
import type { ChangeLine } from '@/core/views'
import { rows, type Scope } from '../database'

interface Row {
  readonly id: string
  readonly number: number
  readonly title: string
  readonly state: ChangeState
  readonly made_at: Date
}
const columns = 'id, number, title, state, made_at'
const lines = (found: readonly Row[]): ChangeLine[] =>
  found.map(({ made_at: at, ...line }) => ({ ...line, at: at.toISOString() }))

/** The latest changes in a line each: without their plans, which are most of what a change weighs. */
export const changeLines = async (scope: Scope, limit: number): Promise<ChangeLine[]> =>
  lines(await rows<Row>(scope, `select ${columns} from changes order by number desc limit $1`, [limit]))

/** The latest changes that have looked at an object or made it; found by the indices changes_reads and changes_made. */
export const changesAbout = async (scope: Scope, objectId: string, limit: number): Promise<ChangeLine[]> =>
  lines(
    await rows<Row>(
      scope,
      `select ${columns} from changes
       where plan -> 'reads' @> jsonb_build_array(jsonb_build_object('id', $1::text))
         or facts @> jsonb_build_object('volumeId', $1::text)
         or facts @> jsonb_build_object('poolId', $1::text)
         or facts @> jsonb_build_object('systemId', $1::text)
       order by number desc limit $2`,
      [objectId, limit],
    ),
  )
