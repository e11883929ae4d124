import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { unpackSegment, type FileSegment } from '@/core/filetree'
import { row, type Scope } from '../database'

const unpack = promisify(gunzip)
/** What a part may be at most once it is unpacked (bytes): its own kind is never so large. */
const mostBytes = 256 * 1024 ** 2

/** The parts of a walk, one after another: no more than one of them stands in memory. */
export async function* scanParts(scope: Scope, scanId: string): AsyncGenerator<FileSegment> {
  for (let part = 0; ; part += 1) {
    const found = await row<{ readonly packed: Buffer }>(
      scope,
      'select packed from file_scan_parts where scan_id = $1 and part = $2',
      [scanId, part],
    )
    if (found === undefined) return
    yield unpackSegment(await unpack(found.packed, { maxOutputLength: mostBytes }))
  }
}
