import { readClient } from './client'
import type { ExportRule } from './exportRules'
import { ruleReach, type RuleReach } from './ruleReach'

/** Something about a share's rules that cannot be, or is hardly meant. `level` as of a plan's checks. */
export interface RuleTrouble {
  readonly index: number
  readonly level: 'must' | 'warn'
  readonly why: string
}

const mostId = 4_294_967_294

/** What is wrong with rules: clients that cannot be read, ids out of range, no sign-in; and rules that decide for nobody. */
export function ruleTroubles(
  rules: readonly ExportRule[],
  reach: readonly RuleReach[] = ruleReach(rules),
): RuleTrouble[] {
  return rules.flatMap((rule, index): RuleTrouble[] => {
    const client = readClient(rule.client)
    if ('why' in client) return [{ index, level: 'must', why: client.why }]
    if (rule.flavours.length === 0) return [{ index, level: 'must', why: 'It takes no sign-in: nobody could pass it.' }]
    if ([rule.anonUid, rule.anonGid].some(id => !Number.isInteger(id) || id < 0 || id > mostId))
      return [{ index, level: 'must', why: `Ids are 0 to ${mostId}.` }]
    const { isNeverReached = false, takenBy = [] } = reach[index] ?? {}
    if (isNeverReached) return [{ index, level: 'warn', why: neverWords(rules, index, takenBy) }]
    const isOpen = client.kind === 'any' && rule.access === 'rw' && rule.flavours.includes('sys')
    return isOpen
      ? [{ index, level: 'warn', why: 'Every host may write, and is believed whoever it says that it is.' }]
      : []
  })
}

function neverWords(rules: readonly ExportRule[], index: number, takenBy: readonly number[]): string {
  const [first] = takenBy
  if (first === undefined) return 'It is never reached: other rules are for all addresses.'
  const same = rules[first]?.client.trim().toLowerCase() === rules[index]?.client.trim().toLowerCase()
  return same
    ? `It is never reached: rule ${first + 1} names the same and stands before it.`
    : `It is never reached: ${
        takenBy.length === 1
          ? `rule ${first + 1} is`
          : `rules ${takenBy
              .slice(0, 4)
              .map(each => each + 1)
              .join(', ')} are`
      } for all of it, and count first.`
}

/** Whether a text is a mode: three or four octal digits. */
export const isMode = (text: string) => /^[0-7]{3,4}$/.test(text)
export const wholeMode = (text: string) => text.padStart(4, '0')
