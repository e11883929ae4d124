import type { PlanCheck } from '@/core/plan'
import { rule } from '../checks'

const mostLabels = 20
const mostLetters = 60

/** Labels as they were written, a line each; each once. */
export const labelsIn = (text: string): string[] => [...new Set(text.split('\n').flatMap(each => each.trim() || []))]

export const labelChecks = (labels: readonly string[]): PlanCheck =>
  rule(
    'labels',
    labels.length <= mostLabels && labels.every(each => each.length <= mostLetters),
    'Its labels are few and short.',
    `At most ${mostLabels} labels of at most ${mostLetters} letters each.`,
    { field: 'labels' },
  )
