import { headOf, nameThatFits, pathsOf, plainPath, projectKey, readQuotas, type Quota } from '@/core/filetree'
import type { AskedHost, Share } from '@/core/estate'
import { formatBytes } from '@/core/units'
import type { Attempt, ChangePorts, FileCaller, HostShares, ShareLimitsWanted } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import type { TriedShare } from './shareTrials'

/** So many quotas and file rules are tried; the others are asked of the system only. */
const mostTried = 4
const trial = '.wendrel-trial'

interface LimitTrial {
  readonly ports: ChangePorts
  readonly share: TriedShare
  readonly host: AskedHost
  readonly as: FileCaller
  readonly limits: ShareLimitsWanted
  readonly usage: Share['quotaUsage']
}

/** Tries limits as their users would meet them: what a hard limit leaves can be had, no more can; forbidden kinds are refused. */
export async function triedLimits({ ports, share, host, as, limits, usage }: LimitTrial): Promise<Evidence[]> {
  const agent = await ports.host(host.agentAddress)
  const at = `/mnt/.wendrel/${share.name}`
  const refused = await agent.shares.mount(share.server, share.path, at)
  if (refused !== undefined)
    return [{ claim: `${host.name} mounts ${share.path}`, holds: false, measured: { answered: refused } }]
  const evidence: Evidence[] = []
  try {
    const quotas = readQuotas(limits.quotas)
    for (const [index, quota] of quotas.entries()) {
      const left = leftOf(quotas, index, usage, as)
      if (left === undefined || evidence.length >= mostTried) continue
      evidence.push(await triedQuota(agent.shares, { at, as, quota, left, host: host.name }))
    }
    const denied = limits.fileRules.filter(({ verdict }) => verdict === 'deny').slice(0, mostTried)
    for (const { pattern, content } of denied) {
      const file = `${at}/${nameThatFits(pattern)}`
      const answer = await agent.shares.write(file, as, 4096, share.name, content === 'any' ? '' : headOf(content))
      if ('sha256' in answer) await agent.shares.remove(file, as)
      evidence.push({
        claim: `${host.name} is refused ${pattern}${content === 'any' ? '' : ` of ${content}`}`,
        holds: 'refused' in answer,
        measured: { file, answered: 'refused' in answer ? answer.refused : 'written' },
      })
    }
  } finally {
    await agent.unmount(at)
  }
  return evidence
}

/**
 * What a quota leaves to somebody in a place of its own; undefined for one that cannot be met alone: another leaves less there, or it is
 * of somebody else.
 */
function leftOf(
  quotas: readonly Quota[],
  index: number,
  usage: Share['quotaUsage'],
  as: FileCaller,
): bigint | undefined {
  const own = quotas[index]
  if (
    own === undefined ||
    own.hardBytes === null ||
    (own.id !== null && own.id !== (own.of === 'user' ? as.uid : as.gid))
  )
    return undefined
  const left = quotas.flatMap((quota, position) => {
    if (quota.hardBytes === null || !isAbove(quota, own)) return []
    const key = keyOf(quota, as)
    const used = usage.find(each => each.index === position && each.key === key)?.usedBytes ?? '0'
    return [{ position, bytes: quota.hardBytes - BigInt(used) }]
  })
  const least = left.reduce<(typeof left)[number] | undefined>(
    (best, each) => (best === undefined || each.bytes < best.bytes ? each : best),
    undefined,
  )
  return least?.position === index && least.bytes > 0n ? least.bytes : undefined
}

/** Whether a quota counts for what is written where another one is tried. */
const isAbove = (quota: Quota, tried: Quota) => {
  const below = plainPath(tried.path)
  return pathsOf(quota).some(above => above === '/' || below === above || below.startsWith(`${above}/`))
}

const keyOf = (quota: Quota, as: FileCaller) =>
  quota.of === 'tree'
    ? plainPath(quota.path)
    : quota.of === 'user'
      ? `user ${as.uid}`
      : quota.of === 'group'
        ? `group ${as.gid}`
        : quota.of === 'project'
          ? projectKey(quota)
          : `${plainPath(quota.path) === '/' ? '' : plainPath(quota.path)}/${trial}`

interface QuotaTrial {
  readonly at: string
  readonly as: FileCaller
  readonly quota: Quota
  readonly left: bigint
  readonly host: string
}

/**
 * In a directory of its own all that a quota leaves is taken, and the next byte is refused. Elsewhere others write at the same time, from
 * whom nothing may be taken even for a moment: one byte is taken, and room for one more than is left is refused.
 */
const triedQuota = (shares: HostShares, trialOf: QuotaTrial): Promise<Evidence> =>
  trialOf.quota.of === 'each directory' ? triedWhole(shares, trialOf) : triedEdge(shares, trialOf)

const folderOf = (at: string, { path }: Quota) => `${at}${plainPath(path) === '/' ? '' : plainPath(path)}`

async function triedWhole(shares: HostShares, { at, as, quota, left, host }: QuotaTrial): Promise<Evidence> {
  const folder = `${folderOf(at, quota)}/${trial}`
  const [filled, over] = [`${folder}/${trial}-room`, `${folder}/${trial}-over`]
  const room = await shares.reserve(filled, as, left)
  try {
    const next = room === undefined ? await shares.write(over, as, 1, quota.path) : undefined
    if (next !== undefined && 'sha256' in next) await shares.remove(over, as)
    return {
      claim: `${host} takes the ${formatBytes(left)} that ${wordsOf(quota)} leaves, and is refused the next byte`,
      holds: room === undefined && next !== undefined && 'refused' in next,
      measured: { taken: room ?? `${left} bytes`, nextByte: next === undefined ? 'not tried' : answerOf(next) },
    }
  } finally {
    // Whatever came of it: room that stayed taken would be refused to others.
    if (room === undefined) await shares.remove(filled, as)
  }
}

async function triedEdge(shares: HostShares, { at, as, quota, left, host }: QuotaTrial): Promise<Evidence> {
  const folder = folderOf(at, quota)
  const [small, over] = [`${folder}/${trial}-one`, `${folder}/${trial}-over`]
  const one = await shares.write(small, as, 1, quota.path)
  if ('sha256' in one) await shares.remove(small, as)
  const refused = await shares.reserve(over, as, left + 1n)
  if (refused === undefined) await shares.remove(over, as)
  return {
    claim: `${host} takes one byte, and is refused one more than the ${formatBytes(left)} that ${wordsOf(quota)} leaves`,
    holds: 'sha256' in one && refused !== undefined,
    measured: { oneByte: answerOf(one), more: refused ?? `${left + 1n} bytes were taken` },
  }
}

const wordsOf = (quota: Quota) =>
  quota.of === 'tree'
    ? plainPath(quota.path)
    : quota.of === 'project'
      ? projectKey(quota)
      : `${quota.of} in ${plainPath(quota.path)}`
const answerOf = (attempt: Attempt) => ('refused' in attempt ? attempt.refused : 'written')
