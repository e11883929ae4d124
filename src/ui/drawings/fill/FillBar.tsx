import type { Sketch } from '@/core/plan'
import { formatBytes } from '@/core/units'

type Fill = Extract<Sketch, { of: 'pool-fill' }>
const widthPixels = 440

/** A pool's fill and what it has promised, before and after a draft, one above the other. */
export function FillBar({ fill }: { readonly fill: Fill }) {
  const usable = Number(fill.usableBytes)
  const most = Math.max(usable, Number(fill.provisionedAfter), 1)
  const x = (bytes: number) => (bytes / most) * (widthPixels - 2)
  const words = `${fill.poolName}: ${formatBytes(BigInt(fill.writtenBytes))} written of ${formatBytes(BigInt(fill.usableBytes))}; promised ${formatBytes(BigInt(fill.provisionedBefore))} before, ${formatBytes(BigInt(fill.provisionedAfter))} after`
  const row = (y: number, name: string, provisioned: number) => (
    <g transform={`translate(0 ${y})`}>
      <text x={0} y={9} style={{ fill: 'var(--second)' }}>
        {name}
      </text>
      <text x={widthPixels} y={9} textAnchor="end" style={{ fontFamily: 'var(--font-mono)' }}>
        {formatBytes(BigInt(Math.round(provisioned)))} promised
      </text>
      <rect x={0.5} y={14.5} width={x(usable)} height={10} fill="none" stroke="var(--rule)" />
      <rect x={1} y={15} width={x(Math.min(provisioned, usable))} height={9} fill="var(--d4)" opacity={0.35} />
      {provisioned > usable && (
        <rect x={x(usable)} y={15} width={x(provisioned - usable)} height={9} fill="var(--soon)" opacity={0.45} />
      )}
      <rect x={1} y={15} width={x(Number(fill.writtenBytes))} height={9} fill="var(--d1)" />
      <line x1={x(usable)} x2={x(usable)} y1={11} y2={28} stroke="var(--now)" strokeWidth={1.5} />
    </g>
  )
  return (
    <figure className="m-0">
      <h3>
        {fill.poolName} <span>written ■, promised, limit |</span>
      </h3>
      <svg viewBox={`0 0 ${widthPixels} 66`} className="block w-full" role="img" aria-label={words}>
        {row(0, 'before', Number(fill.provisionedBefore))}
        {row(34, 'after', Number(fill.provisionedAfter))}
      </svg>
    </figure>
  )
}
