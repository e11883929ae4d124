import type { NameAnswer } from '../estate'
import { plainAddress } from './addresses'

/** What is wrong between a node's name and its address, in words; undefined where they agree, null where nobody has asked yet. */
export function nameTrouble(
  hostName: string,
  address: string,
  answers: readonly NameAnswer[],
): string | undefined | null {
  const own = plainAddress(address) ?? address
  const forward = answers.find(each => each.kind === 'forward' && sameName(each.query, hostName))
  const reverse = answers.find(each => each.kind === 'reverse' && (plainAddress(each.query) ?? each.query) === own)
  if (forward === undefined || reverse === undefined) return null
  if (forward.answers.length === 0) return `${hostName} is not known to the name server: ${forward.why ?? 'no answer'}.`
  if (!forward.answers.some(each => plainAddress(each) === own))
    return `${hostName} leads to ${forward.answers.join(', ')}, not to ${own}.`
  if (reverse.answers.length === 0)
    return `${own} has no name in the reverse zone${reverse.why === null ? '' : `: ${reverse.why}`}.`
  if (!reverse.answers.some(each => sameName(each, hostName)))
    return `${own} is called ${reverse.answers.join(', ')}, not ${hostName}.`
  return undefined
}

const sameName = (a: string, b: string) => a.replace(/\.$/, '').toLowerCase() === b.replace(/\.$/, '').toLowerCase()
