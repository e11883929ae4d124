import { formatBytes, parseBytes } from '@/core/units'

/** A size again in the other family of units, so that nobody has to guess; undefined where the text is no size. */
export function sizeEcho(size: string): string | undefined {
  const parsed = parseBytes(size)
  return 'bytes' in parsed ? `${formatBytes(parsed.bytes)} = ${formatBytes(parsed.bytes, 'decimal')}` : undefined
}
