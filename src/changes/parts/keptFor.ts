import { isKeptFromOthers } from '@/core/classes'
import type { Pool } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { rule } from './checks'

/** What an application is called, as somebody wrote it; null where nothing was said. */
export const applicationOf = (text: string | undefined): string | null => {
  const given = text?.trim() ?? ''
  return given === '' ? null : given
}

/** That a pool which is kept for one application is not used by another. */
export const keptCheck = (pool: Pool, application: string | null): PlanCheck[] =>
  pool.keptFor === null
    ? []
    : [
        rule(
          'kept-for',
          !isKeptFromOthers(pool, application),
          `${pool.name} is kept for ${pool.keptFor}, which it serves.`,
          `${pool.name} is kept for ${pool.keptFor}; ${application === null ? 'it serves no application that is named' : `it serves ${application}`}.`,
          { field: 'poolId', remedy: 'Choose another pool, or leave it to the class.' },
        ),
      ]
