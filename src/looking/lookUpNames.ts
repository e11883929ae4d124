import { nameServer } from '@/connectors/dns'
import type { NameAnswer } from '@/core/estate'
import { plainAddress } from '@/core/network'
import { settings, type Scope } from '@/records'
import { keepNameAnswers } from '@/records/inventory'

/** Asks the estate's name server for names and addresses, forward and reverse, and keeps what it says. Without a server nothing is asked. */
export async function lookUpNames(
  scope: Scope,
  names: readonly string[],
  addresses: readonly string[],
): Promise<NameAnswer[]> {
  const { nameServer: address } = await settings(scope)
  if (address === '') return []
  const server = nameServer(address)
  const at = new Date().toISOString()
  const forward = names.map(async query => ({ query, kind: 'forward' as const, at, ...(await server.forward(query)) }))
  const reverse = addresses
    .flatMap(each => plainAddress(each) ?? [])
    .map(async query => ({ query, kind: 'reverse' as const, at, ...(await server.reverse(query)) }))
  const answers = (await Promise.all([...forward, ...reverse])).map(each => ({ ...each, answers: [...each.answers] }))
  await keepNameAnswers(scope, answers)
  return answers
}
