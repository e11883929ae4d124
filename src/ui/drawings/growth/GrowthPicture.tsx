import type { NoOutlook, Outlook } from '@/core/capacity'
import type { DailyLevels } from '@/core/metrics'
import { GrowthLines } from './GrowthLines'
import { daysOf, growthShape } from './growthShape'
import { growthInWords } from './growthWords'

const width = 376
const height = 172
const frame = { left: 46, right: width - 6, top: 20, bottom: height - 22 }

interface GrowthPictureProps {
  readonly name: string
  readonly levels: DailyLevels
  readonly outlook: Outlook | NoOutlook
}

/** A pool's past and the fan of what is likely, to be looked at: drawn at the server, without a cursor. */
export function GrowthPicture({ name, levels, outlook }: GrowthPictureProps) {
  const days = daysOf(levels)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`${name}: ${growthInWords(outlook, days)}`}
    >
      <GrowthLines shape={growthShape(days, outlook, frame)} outlook={outlook} />
    </svg>
  )
}
