import type { NoOutlook, Outlook } from '@/core/capacity'
import type { DailyLevels } from '@/core/metrics'
import { daysOf, growthShape } from './growthShape'

const width = 150
const height = 24
const frame = { left: 1, right: width - 1, top: 3, bottom: height - 2 }

/** A pool's past and fan, small, from its lowest to its limit. */
export function Spark({ levels, outlook }: { readonly levels: DailyLevels; readonly outlook: Outlook | NoOutlook }) {
  const shape = growthShape(daysOf(levels), outlook, frame)
  const limit = shape.y(outlook.limitBytes)
  const today = shape.x(outlook.today)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} aria-hidden className="block">
      <line x1={0} x2={width} y1={limit} y2={limit} stroke="var(--now)" strokeDasharray="3 2" />
      {shape.fan !== undefined && (
        <>
          <path d={shape.fan.area} fill="var(--soon)" opacity={0.3} />
          <path d={shape.fan.middle} fill="none" stroke="var(--soon)" />
        </>
      )}
      <path d={shape.past} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      <line x1={today} x2={today} y1={2} y2={height - 1} stroke="var(--rule)" />
      <circle cx={today} cy={shape.y(outlook.usedBytes)} r={1.8} fill="var(--ink)" />
    </svg>
  )
}
