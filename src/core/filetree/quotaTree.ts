import { plainPath, type Quota } from './quotas'

/** What has been written of what a quota counts together, as records have it. */
interface Usage {
  readonly index: number
  /** Of a tree, and of each directory: its path. */
  readonly key: string
  readonly usedBytes: bigint
  readonly overSoftSince: string | null
}

/** A directory with what limits it. */
export interface QuotaNode {
  readonly path: string
  /** Below its parent here, as it is called. */
  readonly name: string
  readonly depth: number
  readonly usedBytes: bigint
  readonly softBytes: bigint | null
  readonly hardBytes: bigint | null
  /** Where its bar begins: behind those of its larger siblings, within its parent's. */
  readonly fromBytes: bigint
  /** What can still be written to it; null where nothing limits it. */
  readonly leftBytes: bigint | null
  /** The path of the directory whose limit is met first; its own where that is itself, null where nothing limits it. */
  readonly stoppedBy: string | null
  readonly overSoftSince: string | null
  /** When its soft limit begins to bind (milliseconds since 1970); null while it is not above it. */
  readonly graceEndsAt: number | null
}

interface Draft {
  readonly path: string
  readonly quota: Pick<Quota, 'softBytes' | 'hardBytes' | 'graceDays'>
  readonly usedBytes: bigint
  readonly overSoftSince: string | null
  readonly below: Draft[]
}

const dayMilliseconds = 86_400_000
const isWithin = (path: string, above: string) => above === '/' || path === above || path.startsWith(`${above}/`)

/**
 * Directories under quotas as a tree, the root first, of siblings the fullest first. What stops a write is the least that is left of
 * itself and all above it.
 * @param share its size is the limit of its root @param usage of quotas by their index; those of users and groups are no directories
 * @param now milliseconds since 1970: a soft limit whose grace is over binds like a hard one
 */
export function quotaTree(
  share: { readonly sizeBytes: bigint; readonly usedBytes: bigint },
  quotas: readonly Quota[],
  usage: readonly Usage[],
  now: number,
): QuotaNode[] {
  const root: Draft = {
    path: '/',
    quota: { softBytes: null, hardBytes: share.sizeBytes, graceDays: 0 },
    usedBytes: share.usedBytes,
    overSoftSince: null,
    below: [],
  }
  // Shorter paths first: whatever a directory lies in is there before it.
  const drafts = [...draftsOf(quotas, usage, root).values()].sort((a, b) => a.path.length - b.path.length)
  const placed: Draft[] = [root]
  for (const each of drafts) {
    if (each.path === '/') continue
    const above = placed.findLast(({ path }) => isWithin(each.path, path)) ?? root
    above.below.push(each)
    placed.push(each)
  }
  const top = drafts.find(({ path }) => path === '/')
  return listed(top === undefined ? root : { ...stricter(root, top), below: root.below }, undefined, 0n, now)
}

/** By path; where several quotas are for one directory, the strictest of each limit. */
function draftsOf(quotas: readonly Quota[], usage: readonly Usage[], root: Draft): Map<string, Draft> {
  const found = new Map<string, Draft>()
  for (const { index, key, usedBytes, overSoftSince } of usage) {
    const quota = quotas[index]
    if (quota === undefined || (quota.of !== 'tree' && quota.of !== 'each directory')) continue
    const path = plainPath(key)
    const made: Draft = { path, quota, usedBytes: path === '/' ? root.usedBytes : usedBytes, overSoftSince, below: [] }
    const known = found.get(path)
    found.set(path, known === undefined ? made : stricter(known, made))
  }
  // Of what nobody has written to yet systems tell nothing.
  for (const quota of quotas) {
    const path = plainPath(quota.path)
    if (quota.of === 'tree' && !found.has(path))
      found.set(path, { path, quota, usedBytes: path === '/' ? root.usedBytes : 0n, overSoftSince: null, below: [] })
  }
  return found
}

const lesser = (a: bigint | null, b: bigint | null) => (a === null ? b : b === null ? a : a < b ? a : b)
const stricter = (a: Draft, b: Draft): Draft => ({
  ...a,
  quota: {
    softBytes: lesser(a.quota.softBytes, b.quota.softBytes),
    hardBytes: lesser(a.quota.hardBytes, b.quota.hardBytes),
    graceDays: (a.quota.softBytes === null ? b : a).quota.graceDays,
  },
  overSoftSince: a.overSoftSince ?? b.overSoftSince,
})

function listed(draft: Draft, above: QuotaNode | undefined, fromBytes: bigint, now: number): QuotaNode[] {
  const { path, quota, usedBytes, overSoftSince } = draft
  const graceEndsAt = overSoftSince === null ? null : Date.parse(overSoftSince) + quota.graceDays * dayMilliseconds
  const isSoftBinding = graceEndsAt !== null && graceEndsAt <= now
  const limit = isSoftBinding ? lesser(quota.softBytes, quota.hardBytes) : quota.hardBytes
  const own = limit === null ? null : limit > usedBytes ? limit - usedBytes : 0n
  const inherited = above?.leftBytes ?? null
  const isOwn = own !== null && (inherited === null || own <= inherited)
  const node: QuotaNode = {
    path,
    name: above === undefined ? path : path.slice(above.path === '/' ? 1 : above.path.length + 1),
    depth: above === undefined ? 0 : above.depth + 1,
    ...{ usedBytes, softBytes: quota.softBytes, hardBytes: quota.hardBytes, fromBytes },
    leftBytes: isOwn ? own : inherited,
    stoppedBy: isOwn ? path : (above?.stoppedBy ?? null),
    ...{ overSoftSince, graceEndsAt },
  }
  let at = fromBytes
  const below = [...draft.below].sort((a, b) =>
    a.usedBytes === b.usedBytes ? (a.path < b.path ? -1 : 1) : a.usedBytes > b.usedBytes ? -1 : 1,
  )
  return [
    node,
    ...below.flatMap(each => {
      const begins = at
      at += each.usedBytes
      return listed(each, node, begins, now)
    }),
  ]
}
