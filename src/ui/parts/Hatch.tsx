/** Hatching for what has been taken, is kept back or is not known. */
export function Hatch({
  id,
  colour = 'var(--faint)',
  angle = 45,
}: {
  readonly id: string
  readonly colour?: string
  readonly angle?: number
}) {
  return (
    <defs>
      <pattern id={id} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform={`rotate(${angle})`}>
        <rect width={5} height={5} fill="var(--sheet)" />
        <rect width={1} height={5} fill={colour} />
      </pattern>
    </defs>
  )
}
