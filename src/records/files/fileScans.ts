import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { v7 as uuid } from 'uuid'
import { packSegment, type FileReport, type FileSegment } from '@/core/filetree'
import type { FileScan, TwinFiles } from '@/core/views'
import { row, rows, run, toJson, type Scope } from '../database'
import { keepFolders } from './folders'

const pack = promisify(gzip)
/** The lists of so many walks of a share are kept; of those before only the sums. */
const keptLists = 2

/** A walk that has been begun, and how far it has come. */
export interface BegunScan {
  readonly id: string
  readonly at: Date
  readonly parts: number
  readonly files: number
  readonly bytes: number
  /** The last path that is kept; empty where none is. */
  readonly lastPath: string
}

/** Begins a walk, or finds the one that was begun under a key with what it has kept already. */
export async function beginScan(
  scope: Scope,
  walk: { readonly shareId: string; readonly hostName: string; readonly seenAs: string; readonly at: Date },
  key: string,
): Promise<BegunScan> {
  await run(
    scope,
    `insert into file_scans (id, share_id, host_name, seen_as, at, made_by_step) values ($1, $2, $3, $4, $5, $6)
     on conflict (made_by_step) do nothing`,
    [uuid(), walk.shareId, walk.hostName, walk.seenAs, walk.at, key],
  )
  const found = await row<{ id: string; at: Date; parts: number; files: number; bytes: number; last: string | null }>(
    scope,
    `select id, at, count(part)::int as parts, coalesce(sum(files), 0)::float8 as files, coalesce(sum(bytes), 0)::float8 as bytes,
       (array_agg(last_path order by part desc))[1] as last
     from file_scans left join file_scan_parts on scan_id = id where made_by_step = $1 group by id`,
    [key],
  )
  if (found === undefined) throw new Error('A walk that was begun is not there.')
  const { id, at, parts, files, bytes, last } = found
  return { id, at, parts, files, bytes, lastPath: last ?? '' }
}

/** Keeps one part of a walk; a part that is kept already is kept anew. */
export async function keepScanPart(
  scope: Scope,
  scanId: string,
  part: number,
  segment: FileSegment,
  lastPath: string,
): Promise<void> {
  const packed = await pack(packSegment(segment), { level: 1 })
  const bytes = segment.bytes.reduce((sum, each) => sum + each, 0)
  await run(
    scope,
    `insert into file_scan_parts (scan_id, part, files, bytes, last_path, packed) values ($1, $2, $3, $4, $5, $6)
     on conflict (scan_id, part) do update set files = $3, bytes = $4, last_path = $5, packed = $6`,
    [scanId, part, segment.count, bytes, lastPath, packed],
  )
}

/** Keeps what a walk has found, and drops the lists of those before it but the last. */
export async function endScan(
  scope: Scope,
  scanId: string,
  found: { readonly report: FileReport; readonly twins: readonly TwinFiles[]; readonly at: Date },
): Promise<void> {
  await keepFolders(scope, scanId)
  await run(scope, 'update file_scans set ended_at = $2, report = $3::jsonb, twins = $4::jsonb where id = $1', [
    scanId,
    found.at,
    toJson(found.report),
    toJson(found.twins),
  ])
  await run(
    scope,
    `delete from file_scan_parts where scan_id in (
       select id from file_scans where share_id = (select share_id from file_scans where id = $1) and ended_at is not null
       order by at desc offset $2)`,
    [scanId, keptLists],
  )
}

export const dropScan = (scope: Scope, key: string): Promise<void> =>
  run(scope, 'delete from file_scans where made_by_step = $1', [key])

/** The walks of a share that have come to their end, the latest first. */
export async function scansOf(scope: Scope, shareId: string, most: number): Promise<FileScan[]> {
  const found = await rows<{
    readonly id: string
    readonly at: Date
    readonly host_name: string
    readonly seen_as: string
    readonly report: FileReport
    readonly twins: readonly TwinFiles[]
  }>(
    scope,
    `select id, at, host_name, seen_as, report, twins from file_scans where share_id = $1 and ended_at is not null order by at desc limit $2`,
    [shareId, most],
  )
  return found.map(({ host_name: hostName, seen_as: seenAs, at, ...scan }) => ({
    ...scan,
    ...{ hostName, seenAs, at: at.toISOString() },
  }))
}
