import { cumsum } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import type { SpaceKind } from '@/core/capacity'
import { formatBytes } from '@/core/units'
import { Hatch } from '../../parts/Hatch'

interface SpaceBarProps {
  readonly parts: readonly (readonly [SpaceKind, bigint])[]
}

const width = 760
const top = 6
const bar = 20
const colours: Readonly<Record<SpaceKind, string>> = {
  live: 'var(--d1)',
  clones: 'var(--d6)',
  snapshots: 'var(--d3)',
  holding: 'var(--d5)',
  metadata: 'var(--d4)',
  'free to the limit': 'var(--sheet)',
  'last tenth': 'url(#space-set-aside)',
  reserve: 'url(#space-set-aside)',
  redundancy: 'var(--d7)',
  stranded: 'var(--faint)',
  spares: 'url(#space-set-aside)',
}
/** What is used, what volumes could still have, and what makes raw bytes safe. */
const sums = [
  { words: 'used', of: ['live', 'clones', 'snapshots', 'holding', 'metadata'] },
  { words: 'left', of: ['free to the limit', 'last tenth', 'reserve'] },
  { words: 'for safety', of: ['redundancy', 'stranded', 'spares'] },
] as const satisfies readonly { readonly words: string; readonly of: readonly SpaceKind[] }[]

/** What a pool's drives are made of, every byte once, with the sums that its parts make. */
export function SpaceBar({ parts }: SpaceBarProps) {
  const raw = parts.reduce((sum, [, bytes]) => sum + Number(bytes), 0)
  const x = scaleLinear([0, Math.max(1, raw)], [0, width])
  const ends = cumsum(parts, ([, bytes]) => Number(bytes))
  return (
    <figure className="m-0">
      <h3>
        What its space is made of{' '}
        <span>every byte once, to the {formatBytes(BigInt(Math.round(raw)))} of its drives</span>
      </h3>
      <svg
        viewBox={`0 0 ${width} ${bar + top * 2}`}
        className="block w-full"
        role="img"
        aria-label={parts.map(([kind, bytes]) => `${kind} ${formatBytes(bytes)}`).join(', ')}
      >
        <Hatch id="space-set-aside" />
        {parts.map(([kind, bytes], index) => (
          <rect
            key={kind}
            x={x((ends[index] ?? 0) - Number(bytes))}
            y={top}
            width={Math.max(1, x(Number(bytes)))}
            height={bar}
            fill={colours[kind]}
            stroke="var(--paper)"
            strokeWidth={0.8}
          >
            <title>{`${kind}: ${formatBytes(bytes)}`}</title>
          </rect>
        ))}
        <rect x={0.5} y={top} width={width - 1} height={bar} fill="none" stroke="var(--rule)" />
      </svg>
      <div className="grid grid-cols-3 gap-6 max-md:grid-cols-1">
        {sums.map(({ words, of }) => (
          <Sum key={words} words={words} parts={parts.filter(([kind]) => of.some(each => each === kind))} />
        ))}
      </div>
    </figure>
  )
}

/** Parts that belong together, each with its mark, and what they come to. */
const Sum = ({ words, parts }: SpaceBarProps & { readonly words: string }) => (
  <dl className="m-0 grid grid-cols-[auto_1fr_auto] content-start items-baseline gap-x-2">
    {parts.map(([kind, bytes]) => (
      <div key={kind} className="contents">
        <svg width={9} height={9} aria-hidden className="self-center">
          <rect x={0.5} y={0.5} width={8} height={8} fill={colours[kind]} stroke="var(--rule)" />
        </svg>
        <dt className="text-second">{kind}</dt>
        <dd className="mono m-0 text-right">{formatBytes(bytes)}</dd>
      </div>
    ))}
    <div className="col-span-3 flex justify-between border-t border-rule font-semibold">
      <dt className="pl-[17px]">{words}</dt>
      <dd className="mono m-0">{formatBytes(parts.reduce((sum, [, bytes]) => sum + bytes, 0n))}</dd>
    </div>
  </dl>
)
