import type { NameAnswer } from '../estate'
import { plainAddress } from './addresses'

/** What addresses are called by the name server, as it was asked last; null where one has no name, or nobody has asked. */
export function namesOfAddresses(answers: readonly NameAnswer[]): (address: string | undefined) => string | null {
  const names = new Map<string, string>()
  for (const { kind, query, answers: found } of answers) {
    const [name] = found
    if (kind === 'reverse' && name !== undefined) names.set(plainAddress(query) ?? query, name.replace(/\.$/, ''))
  }
  return address => (address === undefined ? null : (names.get(plainAddress(address) ?? address) ?? null))
}
