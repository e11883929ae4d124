import { bytesInWords, formatBytes } from '@/core/units'

/** A size in words; the exact count and the other unit family on hover, so that nothing is lost that was rounded. */
export function Bytes({ bytes }: { readonly bytes: bigint | string }) {
  const whole = BigInt(bytes)
  const { text, exact } = bytesInWords(whole)
  return (
    <span className="mono whitespace-nowrap" data-hint={`${exact} = ${formatBytes(whole, 'decimal')}`}>
      {text}
    </span>
  )
}
