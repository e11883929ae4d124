import { setTimeout as pause } from 'node:timers/promises'
import {
  allGrants,
  askingFrom,
  decidingRule,
  exportTable,
  madeIn,
  mayFile,
  readWho,
  squashed,
  type FileOperation,
  type Sender,
  type ShareGrant,
  type ShareRights,
} from '@/core/access'
import { hasAgent, type AskedHost, type Estate, type FileService, type Share } from '@/core/estate'
import { namesOfAddresses } from '@/core/network'
import type { Attempt, ChangePorts, FileCaller, Host } from '@/ports'
import type { Evidence } from '../../ChangeKind'

const sampleBytes = 262_144
const restartSeconds = 90
const mostRules = 4
const mostNamed = 4
/** Nobody's ids: neither the owner's nor the group's of any share that is made here. */
const stranger: FileCaller = { uid: 65_533, gid: 65_533, groups: [] }

/** A share as hosts reach it. */
export interface TriedShare {
  readonly name: string
  readonly server: string
  readonly path: string
  readonly protocols: readonly string[]
  readonly rights: ShareRights
  readonly grants: readonly ShareGrant[]
}

export const rightsOf = (share: Pick<Share, 'ownerUid' | 'ownerGid' | 'mode' | 'acl' | 'rules'>): ShareRights => ({
  rules: share.rules,
  root: { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode, acl: share.acl },
})

export const triedShare = (
  share: Pick<Share, 'name' | 'path' | 'protocols' | 'ownerUid' | 'ownerGid' | 'mode' | 'acl' | 'rules' | 'grants'>,
  service: FileService,
): TriedShare => ({
  name: share.name,
  server: service.name,
  path: share.path,
  protocols: share.protocols,
  rights: rightsOf(share),
  // Those of its service count for it as well.
  grants: allGrants({ grants: share.grants, serviceGrants: service.grants }),
})

/** A host with the name by which a server knows it. */
export type NamedHost = AskedHost & Sender

/** Hosts that can be asked, each with the name that leads back from its address, as far as anybody has asked. */
export function namedHosts({ hosts, nameAnswers }: Pick<Estate, 'hosts' | 'nameAnswers'>): NamedHost[] {
  const nameOf = namesOfAddresses(nameAnswers)
  return hosts.filter(hasAgent).map(each => ({ ...each, clientName: nameOf(each.addresses[0]) }))
}

/** One host as a server knows it; nobody where none is chosen yet. */
export const senderOf = (
  { nameAnswers }: Pick<Estate, 'nameAnswers'>,
  host: Pick<AskedHost, 'addresses'> | undefined,
): Sender => ({ addresses: host?.addresses ?? [], clientName: namesOfAddresses(nameAnswers)(host?.addresses[0]) })

/** A host that can be asked and may do something with the root as its owner; none of what is shared over SMB only. */
export function hostThatMay(estate: Estate, share: Share, operation: FileOperation): NamedHost | undefined {
  if (!share.protocols.some(each => each.startsWith('NFS'))) return undefined
  const { rules, root } = rightsOf(share)
  const table = exportTable(rules)
  const as = { uid: root.uid, gid: root.gid, groups: [] }
  return namedHosts(estate)
    .filter(({ addresses }) => addresses.length > 0)
    .find(host => mayFile(table, { ...askingFrom(host), ...as, flavour: 'sys', operation }, root).allowed)
}

/** Hosts that can be asked, by the rule that decides for them: those of a few rules, and those that none is for. */
export function hostsToTry(estate: Estate, rights: ShareRights): NamedHost[][] {
  const table = exportTable(rights.rules)
  const byRule = new Map<number | undefined, NamedHost[]>()
  for (const host of namedHosts(estate)) {
    if (host.addresses.length === 0) continue
    const rule = decidingRule(table, askingFrom(host))
    byRule.set(rule, [...(byRule.get(rule) ?? []), host])
  }
  return [...byRule.values()].slice(0, mostRules)
}

/** Whom the entries of an access list name, as callers who are nobody else. */
const namedBy = ({ acl = [] }: ShareRights['root']): FileCaller[] =>
  acl
    .flatMap(({ who }) => readWho(who) ?? [])
    .slice(0, mostNamed)
    // Each a uid of its own, so that their claims are told apart.
    .map(({ sort, id }, index) =>
      sort === 'uid' ? { ...stranger, uid: id } : { ...stranger, uid: stranger.uid - 1 - index, gid: id },
    )

/** Tries a share as its owner, as those whom its access list names, and as somebody else, from hosts for which different rules decide: what happens must be what was computed. */
export async function tried(ports: ChangePorts, share: TriedShare, hosts: readonly NamedHost[]): Promise<Evidence[]> {
  const { uid, gid } = share.rights.root
  const named = namedBy(share.rights.root).filter(each => each.uid !== uid)
  const evidence: Evidence[] = []
  for (const host of hosts)
    evidence.push(...(await triedFrom(ports, share, host, [{ uid, gid, groups: [] }, ...named, stranger])))
  return evidence
}

/** Tries a share from one host as each of some callers. @param isRestarted between the writing and the reading */
export async function triedFrom(
  ports: ChangePorts,
  share: TriedShare,
  host: NamedHost,
  callers: readonly FileCaller[],
  isRestarted = false,
): Promise<Evidence[]> {
  const agent = await ports.host(host.agentAddress)
  const at = `/mnt/.wendrel/${share.name}`
  const table = exportTable(share.rights.rules)
  const index = decidingRule(table, askingFrom(host))
  const rule = index === undefined ? undefined : share.rights.rules[index]
  const mayMount = rule !== undefined && rule.access !== 'none' && rule.flavours.includes('sys')
  const refused = await agent.shares.mount(share.server, share.path, at)
  const decided = index === undefined ? 'no rule is for it' : `rule ${index + 1}, ${rule?.client ?? ''}`
  const evidence: Evidence[] = [
    {
      claim: mayMount ? `${host.name} mounts ${share.path}` : `${host.name} is not let mount ${share.path}`,
      holds: (refused === undefined) === mayMount,
      measured: { from: host.addresses.join(', '), decided, answered: refused ?? 'mounted' },
    },
  ]
  if (refused !== undefined) return evidence
  try {
    for (const as of callers) evidence.push(...(await triedAs({ ports, agent, share, host, at, as, isRestarted })))
  } finally {
    await agent.unmount(at)
  }
  return evidence
}

interface Trial {
  readonly ports: ChangePorts
  readonly agent: Host
  readonly share: TriedShare
  readonly host: NamedHost
  readonly at: string
  readonly as: FileCaller
  readonly isRestarted: boolean
}

async function triedAs({ ports, agent, share, host, at, as, isRestarted }: Trial): Promise<Evidence[]> {
  const table = exportTable(share.rights.rules)
  const request = { ...askingFrom(host), ...as, flavour: 'sys' as const }
  const write = mayFile(table, { ...request, operation: 'write' }, share.rights.root)
  const file = `${at}/.wendrel-test-${as.uid}`
  const written = await agent.shares.write(file, as, sampleBytes, `${share.name}/${host.id}/${as.uid}`)
  const who = `uid ${as.uid} from ${host.name}`
  const evidence: Evidence[] = [
    {
      claim: write.allowed ? `${who} writes a file` : `${who} is refused a write`,
      holds: 'sha256' in written === write.allowed,
      measured: { computed: write.allowed ? 'allowed' : `refused by ${write.decidedBy}`, answered: answerOf(written) },
    },
  ]
  if (!('sha256' in written)) return evidence
  if (isRestarted) evidence.push(await restarted(ports, agent, host, share, at))
  const rule = write.ruleIndex === null ? undefined : share.rights.rules[write.ruleIndex]
  const owner = rule === undefined ? as : squashed(rule, as)
  // By the entries that it has from the root, else by its mode.
  const mayRead = mayFile(table, { ...request, operation: 'read' }, madeIn(share.rights.root, owner)).allowed
  const read = await agent.shares.read(file, as).finally(() => agent.shares.remove(file, as))
  evidence.push({
    claim: mayRead ? `${who} reads back what was written` : `${who} is refused to read what was written`,
    holds: mayRead ? 'sha256' in read && read.sha256 === written.sha256 : 'refused' in read,
    measured: { bytes: `${sampleBytes}`, writtenSha256: written.sha256, answered: answerOf(read) },
  })
  return evidence
}

const answerOf = (attempt: Attempt) => ('sha256' in attempt ? attempt.sha256 : attempt.refused)

/** Restarts a host; what it mounts at every start must be there again. */
async function restarted(
  ports: ChangePorts,
  agent: Host,
  host: AskedHost,
  { path }: TriedShare,
  at: string,
): Promise<Evidence> {
  const before = await agent.bootId()
  await agent.reboot()
  let after: string | undefined
  for (let waited = 0; waited < restartSeconds && (after === undefined || after === before); waited += 1) {
    await pause(1000, undefined, { signal: ports.signal })
    after = await agent.bootId().catch(() => undefined)
  }
  const isBack = after !== undefined && after !== before
  const mounted = isBack && (await agent.shares.mounted()).some(each => each.path === at && each.isMounted)
  return {
    claim: `${host.name} has restarted and mounts ${path} again by itself`,
    holds: mounted,
    measured: { before, after: after ?? 'it did not come back' },
  }
}
