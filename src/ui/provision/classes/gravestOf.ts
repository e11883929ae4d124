import type { PromiseKept } from '@/core/classes'
import type { PromiseCount } from '@/core/views'

export const gravestFirst = [
  'broken',
  'at risk',
  'kept',
  'not measured',
] as const satisfies readonly PromiseKept['state'][]

/** The gravest state in which a promise stands for anything, and for how much. */
export function gravestOf(counts: PromiseCount['counts']): {
  readonly state: PromiseKept['state']
  readonly volumes: number
} {
  const state = gravestFirst.find(each => counts[each] > 0) ?? 'not measured'
  return { state, volumes: counts[state] }
}
