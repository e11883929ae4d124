import type { ObjectRead, Plan, ShownPlan } from './Plan'

/** What changed in the estate between two plans of one intent, in words for the administrator who is told. */
export function planDifference(before: Plan, after: Plan): string[] {
  const seen = new Map(before.reads.map(read => [read.id, read]))
  const moved = after.reads
    .filter(read => isOther(seen.get(read.id), read))
    .map(read => `${read.name} (${read.kind}) has changed since the plan was made.`)
  const gone = before.reads
    .filter(read => !after.reads.some(other => other.id === read.id))
    .map(read => `${read.name} (${read.kind}) is no longer part of the plan.`)
  return [...moved, ...gone, ...otherThanShown(before, after)]
}

/** The same between two plans of which only what is shown is known. */
export const shownDifference = (before: ShownPlan, after: ShownPlan): string[] => [
  ...(before.revisions === after.revisions ? [] : ['Something that it rests on has changed since the plan was made.']),
  ...otherThanShown(before, after),
]

type Shown = Pick<Plan, 'checks' | 'effects' | 'steps'>

function otherThanShown(before: Shown, after: Shown): string[] {
  const held = new Map(before.checks.map(check => [`${check.rule}/${check.field ?? ''}`, check.holds]))
  const checks = after.checks
    .filter(check => !check.holds && held.get(`${check.rule}/${check.field ?? ''}`) !== false)
    .map(check => check.why)
  const figures = after.effects.flatMap(effect => {
    const old = before.effects.find(other => other.figure === effect.figure)
    return old === undefined || (old.before === effect.before && old.after === effect.after)
      ? []
      : [`${effect.label} is another figure now.`]
  })
  const steps = sameSteps(before, after) ? [] : ['It would be carried out in other steps now.']
  return [...checks, ...figures, ...steps]
}

const isOther = (before: ObjectRead | undefined, after: ObjectRead) =>
  before === undefined || before.revision !== after.revision

/** Whether two plans would do the same: the same steps in the same order, each to the same end. */
const sameSteps = (one: Shown, other: Shown) => JSON.stringify(doing(one)) === JSON.stringify(doing(other))
const doing = ({ steps }: Shown) => steps.map(({ name, words, step }) => [name, words, sorted(step)])

/** Members in the order of their names: a plan that was kept comes back in another order than it was made in. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (typeof value !== 'object' || value === null) return value
  return Object.entries(value)
    .filter(([, each]) => each !== undefined)
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .map(([name, each]) => [name, sorted(each)])
}

/** Whether a plan no longer rests on what is there: an object has another revision, a check that held has fallen, or it would be carried out otherwise. Mere figures move all the time. */
export function isStale(before: Plan, after: Plan): boolean {
  const seen = new Map(before.reads.map(read => [read.id, read]))
  const fallen = after.checks.some(check => !check.holds && check.level === 'must')
  return (
    fallen ||
    !sameSteps(before, after) ||
    after.reads.length !== before.reads.length ||
    after.reads.some(read => isOther(seen.get(read.id), read))
  )
}
