import { drawnDays, type NoOutlook, type Outlook } from '@/core/capacity'
import type { GrowthShape } from './growthShape'
import { bytesWords, dayWords } from './growthWords'

const dayMilliseconds = 86_400_000
/** What the limit is, in words, likewise. */
const limitWordsPixels = 250
/** A day in words takes so much of a picture. */
const dueWordsPixels = 84

interface PartProps {
  readonly shape: GrowthShape
}
interface OutlookPartProps extends PartProps {
  readonly outlook: Outlook | NoOutlook
}

/** What a pool held, its limit, the fan of what is likely, and the day on which that meets the limit. */
export const GrowthLines = ({ shape, outlook }: OutlookPartProps) => (
  <>
    <Grid shape={shape} />
    <Limit shape={shape} outlook={outlook} />
    <Fan shape={shape} />
    <path d={shape.past} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
    <Today shape={shape} outlook={outlook} />
    <Due shape={shape} outlook={outlook} />
  </>
)

const Fan = ({ shape: { fan } }: PartProps) =>
  fan === undefined ? null : (
    <>
      <path d={fan.area} fill="var(--soon)" opacity={0.25} />
      <path d={fan.middle} fill="none" stroke="var(--soon)" strokeWidth={1.5} />
    </>
  )

const Grid = ({ shape, shape: { frame } }: PartProps) => (
  <>
    {shape.levels.map(level => (
      <g key={level}>
        <line x1={frame.left} x2={frame.right} y1={shape.y(level)} y2={shape.y(level)} stroke="var(--rule-fine)" />
        <text
          x={frame.left - 6}
          y={shape.y(level) + 3.5}
          textAnchor="end"
          style={{ fill: 'var(--second)', fontSize: 10.5 }}
        >
          {axisWords(level)}
        </text>
      </g>
    ))}
    {shape.ticks.map(({ at, words }) => (
      <g key={at}>
        <line x1={shape.x(at)} x2={shape.x(at)} y1={frame.bottom} y2={frame.bottom + 4} stroke="var(--faint)" />
        <text
          x={shape.x(at)}
          y={frame.bottom + 18}
          textAnchor="middle"
          style={{ fill: 'var(--second)', fontSize: 10.5 }}
        >
          {words}
        </text>
      </g>
    ))}
  </>
)

const axisWords = (bytes: number) => bytesWords(bytes).replace(/\.0+ /, ' ')

const Limit = ({ shape, shape: { frame }, outlook }: OutlookPartProps) => (
  <>
    <line
      x1={frame.left}
      x2={frame.right}
      y1={shape.y(outlook.limitBytes)}
      y2={shape.y(outlook.limitBytes)}
      stroke="var(--now)"
      strokeDasharray="5 3"
      strokeWidth={1.3}
    />
    <text x={frame.left + 4} y={shape.y(outlook.limitBytes) - 5} style={{ fill: 'var(--second)', fontSize: 10.5 }}>
      {shape.x(outlook.today) - frame.left < limitWordsPixels ? 'limit' : 'limit: 90% of what volumes can have'},{' '}
      {bytesWords(outlook.limitBytes)}
    </text>
  </>
)

const Today = ({ shape, shape: { frame }, outlook }: OutlookPartProps) => (
  <>
    <line
      x1={shape.x(outlook.today)}
      x2={shape.x(outlook.today)}
      y1={frame.top + 14}
      y2={frame.bottom}
      stroke="var(--faint)"
    />
    <circle cx={shape.x(outlook.today)} cy={shape.y(outlook.usedBytes)} r={2.8} fill="var(--ink)" />
    <text
      x={shape.x(outlook.today) - 5}
      y={frame.bottom - 6}
      textAnchor="end"
      style={{ fill: 'var(--second)', fontSize: 10.5 }}
    >
      today {bytesWords(outlook.usedBytes)}
    </text>
  </>
)

/** The day on which the limit is likely to be reached, where the drawing reaches so far. */
function Due({ shape, outlook }: OutlookPartProps) {
  if ('why' in outlook) return null
  const { p50 } = outlook.reachesLimit
  if (p50 === null || p50 === 0 || p50 > drawnDays) return null
  const { frame } = shape
  const at = outlook.today + p50 * dayMilliseconds
  const isLate = frame.right - shape.x(at) < dueWordsPixels
  return (
    <>
      <line
        x1={shape.x(at)}
        x2={shape.x(at)}
        y1={frame.top - 2}
        y2={shape.y(outlook.limitBytes)}
        stroke="var(--soon)"
        strokeDasharray="2 2"
      />
      <circle cx={shape.x(at)} cy={shape.y(outlook.limitBytes)} r={3.6} fill="var(--soon)" />
      <text
        x={shape.x(at) + (isLate ? -5 : 5)}
        y={frame.top - 6}
        textAnchor={isLate ? 'end' : 'start'}
        fontWeight={600}
        style={{ fontSize: 12.5 }}
      >
        {dayWords(at)}
      </text>
    </>
  )
}
