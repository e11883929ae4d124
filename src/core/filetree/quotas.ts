/**
 * How much may be written below a path: in all, in each directory directly in it, by each or one user, by each or one group, or below
 * several paths together as one project.
 */
export interface Quota {
  /** Within the share: `/`, `/people`. */
  readonly path: string
  readonly of: 'tree' | 'each directory' | 'user' | 'group' | 'project'
  /** Of one user or group; null for each of them. */
  readonly id: number | null
  /** Above this, for longer than the grace, nothing more is taken; null for none. */
  readonly softBytes: bigint | null
  /** Above this nothing is taken; null for none. */
  readonly hardBytes: bigint | null
  readonly graceDays: number
  /** Of a project alone. */
  readonly project?: QuotaProject | undefined
}

/** Directories that are counted together. */
export interface QuotaProject {
  readonly name: string
  /** Those beside the quota's own path. */
  readonly alsoAt: readonly string[]
}

/** A write that adds bytes. */
export interface QuotaWrite {
  /** Within the share, from its root: `/people/ines/notes.txt`. */
  readonly path: string
  readonly uid: number
  readonly gid: number
  readonly addedBytes: bigint
  /** Milliseconds since 1970. */
  readonly at: number
}

/** A quota as it counts for one write: for which tree, user or group. */
export interface AppliedQuota {
  readonly quota: Quota
  /** Its zero-based position. */
  readonly index: number
  /** Whatever it counts together has the same key. */
  readonly key: string
}

/** What has been written of what a quota counts together. */
export interface QuotaUsed {
  readonly bytes: bigint
  /** Since when it stands above the soft limit (milliseconds since 1970); null where it does not. */
  readonly overSoftSince: number | null
}

export interface QuotaAnswer {
  readonly allowed: boolean
  /** The quota that refuses; where none does, the one of which least is left. */
  readonly decidedBy: AppliedQuota | null
  readonly because: 'hard' | 'grace' | null
  /** What can still be written; null where no quota counts. */
  readonly leftBytes: bigint | null
}

/** Quotas by the path at which they stand: a write looks at its own ancestors only, however many quotas there are. */
export interface QuotaIndex {
  readonly at: ReadonlyMap<string, readonly { readonly quota: Quota; readonly index: number }[]>
}

const dayMilliseconds = 86_400_000
const none: QuotaUsed = { bytes: 0n, overSoftSince: null }

/** A path in one spelling: from the root, without a last slash or empty parts. */
export function plainPath(path: string): string {
  // Most are so already, and of a million each counts.
  const isPlain = path.startsWith('/') && !path.includes('//') && (path.length === 1 || !path.endsWith('/'))
  if (isPlain) return path
  return `/${path
    .split('/')
    .filter(part => part !== '')
    .join('/')}`
}

export function quotaIndex(quotas: readonly Quota[]): QuotaIndex {
  const at = new Map<string, { readonly quota: Quota; readonly index: number }[]>()
  for (let index = 0; index < quotas.length; index += 1) {
    const quota = quotas[index]
    if (quota === undefined) continue
    for (const path of pathsOf(quota)) {
      const own = at.get(path)
      if (own === undefined) at.set(path, [{ quota, index }])
      else own.push({ quota, index })
    }
  }
  return { at }
}

/** Every path below which a quota counts. */
export const pathsOf = ({ path, project }: Pick<Quota, 'path' | 'project'>): string[] =>
  [path, ...(project?.alsoAt ?? [])].map(plainPath)

/** Whether two quotas count the same, whatever they allow of it. */
export const countsAlike = (a: CountsOf, b: CountsOf): boolean =>
  a.of === b.of && a.id === b.id && (a.of === 'project' ? a.project?.name === b.project?.name : a.path === b.path)
type CountsOf = Pick<Quota, 'path' | 'of' | 'id' | 'project'>

/** Every quota that counts for a write, those of the root first. */
export function quotasFor(
  index: QuotaIndex,
  { path, uid, gid }: Pick<QuotaWrite, 'path' | 'uid' | 'gid'>,
): AppliedQuota[] {
  const applied: AppliedQuota[] = []
  const parts = path.split('/').filter(part => part !== '')
  let ancestor = '/'
  for (let depth = 0; depth < parts.length; depth += 1) {
    for (const { quota, index: position } of index.at.get(ancestor) ?? []) {
      const key = keyOf(quota, ancestor, parts[depth], depth < parts.length - 1, uid, gid)
      if (key !== undefined) applied.push({ quota, index: position, key: `${position}/${key}` })
    }
    ancestor = ancestor === '/' ? `/${parts[depth] ?? ''}` : `${ancestor}/${parts[depth] ?? ''}`
  }
  return applied
}

/** As what a project's quota counts what lies below any of its paths. */
export const projectKey = ({ project }: Pick<Quota, 'project'>): string => `project ${project?.name ?? ''}`

/** What a quota at an ancestor counts a write with; undefined where it does not count. */
function keyOf(
  quota: Quota,
  ancestor: string,
  next: string | undefined,
  isDirectory: boolean,
  uid: number,
  gid: number,
): string | undefined {
  switch (quota.of) {
    case 'tree':
      return ancestor
    case 'each directory':
      return isDirectory ? `${ancestor === '/' ? '' : ancestor}/${next ?? ''}` : undefined
    case 'user':
      return quota.id === null || quota.id === uid ? `user ${uid}` : undefined
    case 'group':
      return quota.id === null || quota.id === gid ? `group ${gid}` : undefined
    case 'project':
      return projectKey(quota)
  }
}

/** Judges a write against every quota above it; the first that refuses, from the root down, decides. */
export function judgeWrite(
  index: QuotaIndex,
  used: (key: string) => QuotaUsed | undefined,
  write: QuotaWrite,
): QuotaAnswer {
  let least: { readonly applied: AppliedQuota; readonly left: bigint } | undefined
  for (const applied of quotasFor(index, write)) {
    const { hardBytes, softBytes, graceDays } = applied.quota
    const { bytes, overSoftSince } = used(applied.key) ?? none
    const after = bytes + write.addedBytes
    const isOver = softBytes !== null && after > softBytes
    const isPast = isOver && overSoftSince !== null && write.at - overSoftSince >= graceDays * dayMilliseconds
    const limit = isPast ? softBytes : hardBytes
    const left = limit === null ? undefined : limit > bytes ? limit - bytes : 0n
    if (write.addedBytes > 0n && hardBytes !== null && after > hardBytes)
      return { allowed: false, decidedBy: applied, because: 'hard', leftBytes: left ?? null }
    if (write.addedBytes > 0n && isPast) return { allowed: false, decidedBy: applied, because: 'grace', leftBytes: 0n }
    if (left !== undefined && (least === undefined || left < least.left)) least = { applied, left }
  }
  return { allowed: true, decidedBy: least?.applied ?? null, because: null, leftBytes: least?.left ?? null }
}

/** Since when something stands above its soft limit, once a write has brought it to some bytes. */
export const overSoftAfter = ({ softBytes }: Quota, bytes: bigint, since: number | null, at: number): number | null =>
  softBytes === null || bytes <= softBytes ? null : (since ?? at)

/** Quotas as records hold them: bytes as decimal text. */
export const readQuotas = (
  all: readonly (Omit<Quota, 'softBytes' | 'hardBytes'> & {
    readonly softBytes: string | null
    readonly hardBytes: string | null
  })[],
): Quota[] => all.map(each => ({ ...each, softBytes: bytesOf(each.softBytes), hardBytes: bytesOf(each.hardBytes) }))

const bytesOf = (text: string | null) => (text === null ? null : BigInt(text))
