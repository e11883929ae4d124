import { csvParseRows } from 'd3-dsv'
import { parseBytes } from '../units'
import { nameCheck } from './names'

/** A volume that is asked for in a line. */
export interface VolumeLineAsked {
  readonly name: string
  readonly sizeBytes: bigint
}

export interface ReadLines {
  readonly volumes: readonly VolumeLineAsked[]
  /** What could not be read, with the number of its line. */
  readonly troubles: readonly { readonly line: number; readonly why: string }[]
}

/** One draft provisions so many at most. */
export const mostVolumes = 1000
const range = /\{(\d{1,6})\.\.(\d{1,6})\}/

/**
 * Volumes from lines of CSV, a name and a size each: `catalogue-data-01, 3 TiB`. A range in a name stands for as many volumes:
 * `desk-{01..60}, 80 GiB`, its numbers as wide as they are written. A first line of heads is passed over. Source: RFC 4180.
 */
export function readVolumeLines(text: string): ReadLines {
  const volumes: VolumeLineAsked[] = []
  const troubles: { line: number; why: string }[] = []
  const seen = new Map<string, number>()
  csvParseRows(text.trim()).forEach((row, index) => {
    const line = index + 1
    const [name = '', size = ''] = row.map(each => each.trim())
    if (name === '' && size === '') return
    if (index === 0 && name.toLowerCase() === 'name') return
    const parsed = parseBytes(size)
    if (!('bytes' in parsed)) return void troubles.push({ line, why: parsed.why })
    const names = namesIn(name)
    if (typeof names === 'string') return void troubles.push({ line, why: names })
    if (volumes.length + names.length > mostVolumes)
      return void troubles.push({ line, why: `More than ${mostVolumes} volumes are asked for in one draft.` })
    for (const each of names) {
      const check = nameCheck(each, 'the volume')
      const before = seen.get(each)
      if (!check.holds) troubles.push({ line, why: `"${each.slice(0, 80)}": ${check.why}` })
      else if (before !== undefined) troubles.push({ line, why: `${each} stands in line ${before} already.` })
      else volumes.push({ name: each, sizeBytes: parsed.bytes })
      seen.set(each, before ?? line)
    }
  })
  return { volumes, troubles }
}

/** The names that a name with a range stands for, its numbers as wide as they are written; why there are none. */
export function namesIn(name: string): readonly string[] | string {
  const found = range.exec(name)
  if (found === null) return [name]
  const [whole, from = '', to = ''] = found
  const count = Number(to) - Number(from) + 1
  if (count < 1) return `${whole} counts backwards.`
  if (count > mostVolumes)
    return `${whole} stands for ${count.toLocaleString('en')} volumes; ${mostVolumes} is the most.`
  const width = from.length
  return Array.from({ length: count }, (_, index) =>
    name.replace(whole, String(Number(from) + index).padStart(width, '0')),
  )
}
