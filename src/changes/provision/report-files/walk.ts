import { group } from 'd3-array'
import {
  contentOf,
  comparePaths,
  fileAt,
  FileReporter,
  makeSegment,
  mostComparedBytes,
  mostReadBytes,
  segmentFiles,
  type ListedFile,
} from '@/core/filetree'
import { WendrelError } from '@/core/errors'
import { byId } from '@/core/estate'
import type { TwinFiles } from '@/core/views'
import type { ChangePorts, FileCaller, FilePart, HostShares, ListedPage, SignedInCaller } from '@/ports'

/** How a walk is made. */
export interface Walk {
  readonly shareId: string
  readonly hostName: string
  readonly agentAddress: string
  readonly server: string
  /** As the server exports it. */
  readonly exported: string
  readonly as: FileCaller | SignedInCaller
  readonly seenAs: string
}

/** Beyond this a walk is no walk. */
const mostFiles = 20_000_000
/** Twins are looked for in so many files, or parts of large ones. */
const mostRead = 240

/** The host would not list, or not go on. */
export class WalkEnded extends WendrelError {
  readonly code = 'change.walk-ended'
  constructor(hostName: string, why: string) {
    super({
      what: `${hostName} did not walk through all files.`,
      why,
      remedy: 'Look as somebody who may read the share’s root directory; what was found so far is kept.',
    })
  }
}

export const mountedAt = ({ shareId }: Pick<Walk, 'shareId'>) => `/mnt/.wendrel/walk-${shareId.slice(-12)}`

/** A page as it can be used: what does not come after what came before would never end. @throws {WalkEnded} */
function filesOf(walk: Walk, page: ListedPage | { readonly refused: string }, after: string): readonly ListedFile[] {
  if ('refused' in page) throw new WalkEnded(walk.hostName, `The server refuses ${walk.seenAs}: ${page.refused}.`)
  let last = after
  return page.files.map(({ path, uid, gid, bytes, modifiedAt, head }) => {
    if (comparePaths(path, last) <= 0)
      throw new WalkEnded(
        walk.hostName,
        `It told ${path.slice(0, 200)} after ${last.slice(0, 200)}: the order is broken.`,
      )
    last = path
    return { ...{ path: `/${path}`, uid, gid, bytes, modifiedAt }, kind: contentOf(head) }
  })
}

/** Walks through all files and keeps them, part by part; one that was cut off goes on behind the last part that is kept. */
export async function walked(walk: Walk, key: string, ports: ChangePorts): Promise<string> {
  const { fileScans } = ports.records
  const at = await ports.now()
  const scan = await fileScans.begin({ shareId: walk.shareId, hostName: walk.hostName, seenAs: walk.seenAs, at }, key)
  const { shares } = await ports.host(walk.agentAddress)
  // How far a walk is follows from what its system says is used now: it moves all the time, and no plan rests on it.
  const used = Math.max(1, Number(byId((await ports.estate()).shares, walk.shareId)?.usedBytes ?? 0n))
  let { parts, files, bytes, lastPath: after } = scan
  let held: ListedFile[] = []
  const keep = async () => {
    await fileScans.keepPart(scan.id, parts, makeSegment(held), after)
    parts += 1
    held = []
  }
  for (let isLast = false; !isLast; ) {
    const page = await shares.list(mountedAt(walk), walk.as, after)
    const found = filesOf(walk, page, after)
    if (found.length === 0 && !('refused' in page) && !page.isLast)
      throw new WalkEnded(walk.hostName, 'It told an empty page, and that more would follow.')
    for (const file of found) {
      held.push(file)
      bytes += file.bytes
    }
    files += found.length
    if (files > mostFiles) throw new WalkEnded(walk.hostName, `There are more than ${mostFiles} files.`)
    after = found.at(-1)?.path.slice(1) ?? after
    isLast = 'isLast' in page && page.isLast
    if (held.length >= segmentFiles) await keep()
    await ports.progress(Math.min(0.98, bytes / used), `${files.toLocaleString('en')} files found`)
  }
  if (held.length > 0) await keep()
  const reporter = new FileReporter(scan.at.getTime())
  const sizes = await reported(reporter, scan.id, ports)
  const report = reporter.report()
  const twins = await twinsOf(walk, shares, sizes, report.sameSize)
  await fileScans.end(scan.id, { report, twins, at: await ports.now() })
  return scan.id
}

/** Sums all parts up. @returns files by their size, for those sizes of which there may be several */
async function reported(reporter: FileReporter, scanId: string, ports: ChangePorts): Promise<Map<number, string[]>> {
  const { fileScans } = ports.records
  for await (const part of fileScans.parts(scanId)) reporter.add(part)
  const wanted = new Map(reporter.report().sameSize.map(({ bytes }) => [bytes, [] as string[]]))
  if (wanted.size === 0) return wanted
  for await (const part of fileScans.parts(scanId))
    for (let index = 0; index < part.count; index += 1) {
      const own = wanted.get(part.bytes[index] ?? 0)
      if (own !== undefined && own.length < mostRead) own.push(fileAt(part, index).path)
    }
  return wanted
}

/** Files of one size that are alike, read as whoever walks; one that cannot be read is passed over. */
async function twinsOf(
  walk: Walk,
  shares: HostShares,
  bySize: ReadonlyMap<number, readonly string[]>,
  order: readonly { readonly bytes: number }[],
): Promise<TwinFiles[]> {
  const twins: TwinFiles[] = []
  const sumOf: SumOf = async (path, part) => {
    const attempt = await shares.read(`${mountedAt(walk)}${path}`, walk.as, part).catch(() => undefined)
    return attempt !== undefined && 'sha256' in attempt ? attempt.sha256 : undefined
  }
  let read = 0
  for (const { bytes } of order) {
    const paths = bySize.get(bytes) ?? []
    const most = paths.length * Math.ceil(bytes / mostReadBytes)
    if (bytes > mostComparedBytes || paths.length < 2 || read + most > mostRead) continue
    read += most
    for (const { sha256, paths: alike } of await alikeOf(paths, bytes, sumOf))
      twins.push({ sha256, bytes, paths: alike })
  }
  return twins
}

type SumOf = (path: string, part?: FilePart) => Promise<string | undefined>
interface Alike {
  readonly sha256: string
  readonly paths: readonly string[]
}

/** Part by part: those that differ mostly do so in the first already, and the rest of them is not read. */
async function alikeOf(paths: readonly string[], bytes: number, sumOf: SumOf): Promise<readonly Alike[]> {
  let groups: readonly Alike[] = [{ sha256: '', paths }]
  for (let offsetBytes = 0; offsetBytes < bytes && groups.length > 0; offsetBytes += mostReadBytes) {
    const part = bytes <= mostReadBytes ? undefined : { offsetBytes, lengthBytes: mostReadBytes }
    const told: Alike[] = []
    for (const { sha256: first, paths: own } of groups) {
      const sums: { readonly path: string; readonly sum: string }[] = []
      for (const path of own) {
        const sum = await sumOf(path, part)
        if (sum !== undefined) sums.push({ path, sum })
      }
      for (const [sum, alike] of group(sums, each => each.sum))
        if (alike.length > 1) told.push({ sha256: first === '' ? sum : first, paths: alike.map(({ path }) => path) })
    }
    groups = told
  }
  return groups
}
