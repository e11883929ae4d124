import type { Estate, System } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'

/** A rule that must hold. `remedy` is shown where it does not. */
export const must = (
  rule: string,
  holds: boolean,
  why: string,
  more: { readonly field?: string; readonly remedy?: string; readonly href?: string } = {},
): PlanCheck => ({ rule, holds, level: 'must', why, ...more })

/** A rule that must hold, in the words of both: what is so where it holds, and what is not where it does not. */
export const rule = (
  code: string,
  holds: boolean,
  yes: string,
  no: string,
  more: Parameters<typeof must>[3] = {},
): PlanCheck => must(code, holds, holds ? yes : no, more)

/** A rule whose breach is said, but does not bar the change. */
export const warn = (
  rule: string,
  holds: boolean,
  why: string,
  more: { readonly field?: string; readonly remedy?: string; readonly href?: string } = {},
): PlanCheck => ({ rule, holds, level: 'warn', why, ...more })

/** That a system answers now. */
export const answers = (system: System): PlanCheck =>
  must(
    'system-answers',
    system.reach === 'answering',
    system.reach === 'answering'
      ? `${system.name} answers.`
      : `${system.name} does not answer: ${system.reachWhy ?? 'no reason is known'}`,
    {
      remedy: 'Wait until it answers again; the draft is kept.',
    },
  )

/** That no running change holds what this one touches. */
export function unclaimed(estate: Estate, claims: readonly string[]): PlanCheck {
  const holder = claims.map(claim => estate.claims.get(claim)).find(title => title !== undefined)
  return must(
    'not-held',
    holder === undefined,
    holder === undefined ? 'No other change is at work on this.' : `"${holder}" is at work on this.`,
    {
      remedy: 'Wait for it to end, or stop it.',
    },
  )
}
