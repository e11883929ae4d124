import { decidingGrant, everybody, madeIn, mayBySmb, signedIn, type SignedIn } from '@/core/access'
import type { AskedHost, Estate, Principal } from '@/core/estate'
import type { Attempt, ChangePorts, Host } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import { overOf } from './shareChecks'
import { reaching } from './reaching'
import { hostsToTry, namedHosts, tried, type TriedShare } from './shareTrials'

const sampleBytes = 262_144
/** So many grants are tried, each by one of those whom it is for. */
const mostTried = 3

/** Somebody of a directory, as a file server takes them. */
export interface Tried {
  readonly account: string
  readonly is: SignedIn
}

/** The groups of an estate's slice, by their durable ids. */
export const groupsIn = ({ principals }: Pick<Estate, 'principals'>): ReadonlyMap<string, Principal> =>
  new Map(principals.filter(({ sort }) => sort === 'group').map(each => [each.durableId, each]))

/** Tries a share over all that it is served by: what happens must be what is computed. */
export async function triedByAll(ports: ChangePorts, estate: Estate, share: TriedShare): Promise<Evidence[]> {
  const { isNfs, isSmb } = overOf(share.protocols)
  const groups = isNfs ? hostsToTry(estate, share.rights) : [namedHosts(estate)].filter(each => each.length > 0)
  const { hosts, evidence } = await reaching(ports, share.server, groups)
  const byNumbers = isNfs ? await tried(ports, share, hosts) : []
  const [host] = hosts
  const byAccounts = isSmb && host !== undefined ? await triedBySmb(ports, share, host, peopleToTry(estate, share)) : []
  return [...byNumbers, ...byAccounts, ...evidence]
}

/** Somebody for each of some grants, and somebody who has none, as far as they are known. */
function peopleToTry(estate: Estate, { grants }: Pick<TriedShare, 'grants'>): Tried[] {
  const groups = groupsIn(estate)
  const people = estate.principals
    .filter(({ sort, goneSince }) => sort === 'person' && goneSince === null)
    .map(each => ({ account: each.account, is: signedIn(each, groups) }))
  const chosen = new Map<string, Tried>()
  for (const { who } of grants.filter(each => each.who !== everybody).slice(0, mostTried)) {
    const one = people.find(
      ({ is }) => (is.durableId === who || is.groupIds.includes(who)) && !chosen.has(is.durableId),
    )
    if (one !== undefined) chosen.set(one.is.durableId, one)
  }
  const none = people.find(({ is }) => decidingGrant(grants, is) === undefined)
  const barred = people.find(({ is }) => is.isDisabled)
  for (const other of [none, barred]) if (other !== undefined) chosen.set(other.is.durableId, other)
  return [...chosen.values()]
}

/** Tries a share over SMB from a host as each of some people, who have signed in there. */
export async function triedBySmb(
  ports: ChangePorts,
  share: TriedShare,
  host: AskedHost,
  people: readonly Tried[],
): Promise<Evidence[]> {
  const agent = await ports.host(host.agentAddress)
  const at = `/mnt/.wendrel/smb-${share.name}`
  const refused = await agent.shares.mount(share.server, `//${share.name}`, at)
  const evidence: Evidence[] = [
    {
      claim: `${host.name} reaches ${share.name} over SMB`,
      holds: refused === undefined,
      measured: { server: share.server, answered: refused ?? 'mounted' },
    },
  ]
  if (refused !== undefined) return evidence
  try {
    for (const person of people)
      evidence.push(...(await triedAs(agent, share, `${at}/.wendrel-test-${person.is.uid}`, person, host)))
  } finally {
    await agent.unmount(at)
  }
  return evidence
}

/** Writes a file as somebody, and reads it back. */
async function triedAs(
  { shares }: Host,
  share: TriedShare,
  file: string,
  { account, is }: Tried,
  host: AskedHost,
): Promise<Evidence[]> {
  const as = { account }
  const { allowed, decidedBy } = mayBySmb(share.grants, is, 'write', share.rights.root)
  const written = await shares.write(file, as, sampleBytes, `${share.name}/${host.id}/${account}`)
  const wrote: Evidence = {
    claim: allowed ? `${account} writes a file over SMB` : `${account} is refused a write over SMB`,
    holds: 'sha256' in written === allowed,
    measured: { computed: allowed ? 'allowed' : `refused by ${decidedBy}`, answered: answerOf(written) },
  }
  if (!('sha256' in written)) return [wrote]
  const read = await shares.read(file, as).finally(() => shares.remove(file, as))
  // By the entries that what it has made has from the root, else by its mode.
  const mayRead = mayBySmb(share.grants, is, 'read', madeIn(share.rights.root, is)).allowed
  return [
    wrote,
    {
      claim: mayRead ? `${account} reads back what was written` : `${account} is refused to read what was written`,
      holds: mayRead ? 'sha256' in read && read.sha256 === written.sha256 : 'refused' in read,
      measured: { bytes: `${sampleBytes}`, writtenSha256: written.sha256, answered: answerOf(read) },
    },
  ]
}

const answerOf = (attempt: Attempt) => ('sha256' in attempt ? attempt.sha256 : attempt.refused)
