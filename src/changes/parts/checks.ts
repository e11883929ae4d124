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

/** A rule whose breach is said but does not bar the change, in the words of both. */
export const advise = (
  code: string,
  holds: boolean,
  yes: string,
  no: string,
  more: Parameters<typeof must>[3] = {},
): PlanCheck => warn(code, holds, holds ? yes : no, more)

/** That something is there, in words that may name it. */
export const there = <T>(
  code: string,
  thing: T | undefined,
  yes: (thing: T) => string,
  no: string,
  more: Parameters<typeof must>[3] = {},
): PlanCheck => must(code, thing !== undefined, thing === undefined ? no : yes(thing), more)

/** That something is not there; what is there all the same is named. */
export const absent = <T>(
  code: string,
  thing: T | undefined,
  yes: string,
  no: (thing: T) => string,
  more: Parameters<typeof must>[3] = {},
): PlanCheck => must(code, thing === undefined, thing === undefined ? yes : no(thing), more)

/** That a system answers now. */
export const answers = (system: System): PlanCheck =>
  rule(
    'system-answers',
    system.reach === 'answering',
    `${system.name} answers.`,
    `${system.name} does not answer: ${system.reachWhy ?? 'no reason is known'}`,
    { remedy: 'Wait until it answers again; the draft is kept.' },
  )

/** That no running change holds what this one touches. */
export function unclaimed(estate: Estate, claims: readonly string[]): PlanCheck {
  const holder = claims.map(claim => estate.claims.get(claim)).find(title => title !== undefined)
  return rule(
    'not-held',
    holder === undefined,
    'No other change is at work on this.',
    `"${holder ?? ''}" is at work on this.`,
    { remedy: 'Wait for it to end, or stop it.' },
  )
}
