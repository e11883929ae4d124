import type { ShareLimitsEntity } from '../array'
import { contentOf } from '@/core/filetree'
import type { FileEntry } from './FileSystems'

interface Wanted {
  readonly path: string
  readonly uid: number
  readonly gid: number
  readonly bytes: number
  /** First bytes in hexadecimal. */
  readonly head: string
  readonly now: number
}

export const noLimits: ShareLimitsEntity = { quotas: [], fileRules: [], overSoft: {} }
const day = 86_400_000

type Quota = ShareLimitsEntity['quotas'][number]
interface Counted {
  readonly path: string
  readonly uid: number
  readonly gid: number
  readonly bytes: number
}

/** By what a quota counts a file; undefined where it does not. */
function counter({ path, of, id, project }: Quota, file: Omit<Counted, 'bytes'>): string | undefined {
  if (of === 'project') {
    const trees = [path, ...(project?.alsoAt ?? [])]
    return trees.some(tree => file.path.startsWith(tree.replace(/\/*$/, '/'))) ? `project ${project?.name}` : undefined
  }
  const base = path === '/' ? '' : path.replace(/\/+$/, '')
  if (!file.path.startsWith(`${base}/`)) return undefined
  const rest = file.path.slice(base.length + 1)
  if (of === 'tree') return base === '' ? '/' : base
  if (of === 'each directory') return rest.includes('/') ? `${base}/${rest.slice(0, rest.indexOf('/'))}` : undefined
  const who = of === 'user' ? file.uid : file.gid
  return id === null || id === who ? `${of} ${who}` : undefined
}

const counted = (entry: FileEntry): Counted => ({
  path: `/${entry.path}`,
  uid: entry.marks?.uid ?? 0,
  gid: entry.marks?.gid ?? 0,
  bytes: entry.length,
})

/** What stands of each that a quota counts together. */
export function usage(
  { quotas }: ShareLimitsEntity,
  files: readonly FileEntry[],
): { readonly index: number; readonly of: string; readonly bytes: number }[] {
  const sums = new Map<string, { index: number; of: string; bytes: number }>()
  for (const file of files.map(counted))
    quotas.forEach((quota, index) => {
      const of = counter(quota, file)
      if (of === undefined) return
      const own = sums.get(`${index}/${of}`) ?? { index, of, bytes: 0 }
      own.bytes += file.bytes
      sums.set(`${index}/${of}`, own)
    })
  return [...sums.values()].sort((a, b) => b.bytes - a.bytes)
}

/** Why a file is refused; undefined where it may be written. */
export function refusedWhy(limits: ShareLimitsEntity, files: readonly FileEntry[], wanted: Wanted): string | undefined {
  const name = wanted.path.slice(wanted.path.lastIndexOf('/') + 1)
  const content = contentOf(wanted.head)
  const isForbidden = limits.fileRules.some(
    rule =>
      rule.verdict === 'deny' &&
      expressionOf(rule.pattern).test(name) &&
      (rule.content === 'any' || rule.content === content),
  )
  if (isForbidden) return 'file type refused'
  const others = files.filter(each => `/${each.path}` !== wanted.path)
  const before = usage(limits, files)
  const standing = usage(limits, others)
  const isOver = limits.quotas.some((quota, index) => {
    const of = counter(quota, wanted)
    if (of === undefined) return false
    const find = (all: typeof before) => all.find(each => each.index === index && each.of === of)?.bytes ?? 0
    const after = find(standing) + wanted.bytes
    if (after <= find(before)) return false
    if (quota.hardBytes !== null && after > Number(quota.hardBytes)) return true
    const since = limits.overSoft[`${index}/${of}`]
    const isSoft = quota.softBytes !== null && after > Number(quota.softBytes)
    return isSoft && since !== undefined && wanted.now - since >= quota.graceDays * day
  })
  return isOver ? 'disk quota exceeded' : undefined
}

/** Since when each stands above its soft limit, once files have become otherwise. */
export function overSoft(limits: ShareLimitsEntity, files: readonly FileEntry[], now: number): Record<string, number> {
  return Object.fromEntries(
    usage(limits, files).flatMap(({ index, of, bytes }) => {
      const soft = limits.quotas[index]?.softBytes ?? null
      const key = `${index}/${of}`
      return soft === null || bytes <= Number(soft) ? [] : [[key, limits.overSoft[key] ?? now]]
    }),
  )
}

const expressionOf = (pattern: string) =>
  new RegExp(
    `^${pattern
      .replace(/[.+^${}()|[\]\\]/g, '\\$&')
      .replace(/\*+/g, '.*')
      .replaceAll('?', '.')}$`,
    'isu',
  )
