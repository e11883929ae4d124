import { setTimeout as pause } from 'node:timers/promises'
import { decidingRule, exportTable, mayFile, squashed, type ShareGrant, type ShareRights } from '@/core/access'
import { hasAgent, type AskedHost, type Estate, type FileService, type Share } from '@/core/estate'
import type { Attempt, ChangePorts, FileCaller, Host } from '@/ports'
import type { Evidence } from '../../ChangeKind'

const sampleBytes = 262_144
const restartSeconds = 90
const mostRules = 4
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

export const rightsOf = (share: Pick<Share, 'ownerUid' | 'ownerGid' | 'mode' | 'rules'>): ShareRights => ({
  rules: share.rules,
  root: { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode },
})

export const triedShare = (
  share: Pick<Share, 'name' | 'path' | 'protocols' | 'ownerUid' | 'ownerGid' | 'mode' | 'rules' | 'grants'>,
  service: FileService,
): TriedShare => ({
  name: share.name,
  server: service.name,
  path: share.path,
  protocols: share.protocols,
  rights: rightsOf(share),
  grants: share.grants,
})

const asking = (host: Pick<AskedHost, 'name' | 'addresses'>) => ({
  clientAddress: host.addresses[0] ?? '',
  clientName: null,
})

/** Hosts that can be asked, by the rule that decides for them: those of a few rules, and those that none is for. */
export function hostsToTry(estate: Estate, rights: ShareRights): AskedHost[][] {
  const table = exportTable(rights.rules)
  const byRule = new Map<number | undefined, AskedHost[]>()
  for (const host of estate.hosts.filter(hasAgent)) {
    if (host.addresses.length === 0) continue
    const rule = decidingRule(table, asking(host))
    byRule.set(rule, [...(byRule.get(rule) ?? []), host])
  }
  return [...byRule.values()].slice(0, mostRules)
}

/** Tries a share as its owner and as somebody else, from hosts for which different rules decide: what happens must be what was computed. */
export async function tried(ports: ChangePorts, share: TriedShare, hosts: readonly AskedHost[]): Promise<Evidence[]> {
  const { uid, gid } = share.rights.root
  const evidence: Evidence[] = []
  for (const host of hosts)
    evidence.push(...(await triedFrom(ports, share, host, [{ uid, gid, groups: [] }, stranger])))
  return evidence
}

/** Tries a share from one host as each of some callers. @param isRestarted between the writing and the reading */
export async function triedFrom(
  ports: ChangePorts,
  share: TriedShare,
  host: AskedHost,
  callers: readonly FileCaller[],
  isRestarted = false,
): Promise<Evidence[]> {
  const agent = await ports.host(host.agentAddress)
  const at = `/mnt/.wendrel/${share.name}`
  const table = exportTable(share.rights.rules)
  const index = decidingRule(table, asking(host))
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
  readonly host: AskedHost
  readonly at: string
  readonly as: FileCaller
  readonly isRestarted: boolean
}

async function triedAs({ ports, agent, share, host, at, as, isRestarted }: Trial): Promise<Evidence[]> {
  const table = exportTable(share.rights.rules)
  const request = { ...asking(host), ...as, flavour: 'sys' as const }
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
  const mayRead = mayFile(table, { ...request, operation: 'read' }, { uid: owner.uid, gid: owner.gid, mode: '0644' })
  const read = await agent.shares.read(file, as).finally(() => agent.shares.remove(file, as))
  evidence.push({
    claim: `${who} reads back what was written`,
    holds: mayRead.allowed && 'sha256' in read && read.sha256 === written.sha256,
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
