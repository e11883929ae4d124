import { extent } from 'd3-array'
import { scaleSqrt } from 'd3-scale'

interface StrataProps {
  readonly title: string
  readonly about: string
  /** By weekday (0 = Monday) and hour; null where nothing was measured. */
  readonly values: readonly (readonly (number | null)[])[]
  readonly words: (value: number) => string
}

const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const width = 440
const left = 32
const cellHeight = 14
const cellWidth = (width - left) / 24

/** A week as layers: each weekday a row, each hour a cell, the darker the more. */
export function Strata({ title, about, values, words }: StrataProps) {
  const known = values.flatMap((hours, day) =>
    hours.flatMap((value, hour) => (value === null ? [] : [{ day, hour, value }])),
  )
  const [low = 0, high = 1] = extent(known, ({ value }) => value)
  const shade = scaleSqrt([low, high === low ? low + 1 : high], [0.06, 1])
  const worst = known.reduce<(typeof known)[number] | undefined>(
    (most, each) => (most === undefined || each.value > most.value ? each : most),
    undefined,
  )
  const said =
    worst === undefined
      ? 'Nothing has been measured yet.'
      : `Worst on ${days[worst.day]} from ${worst.hour}:00, ${words(worst.value)}; best ${words(low)}.`
  return (
    <figure className="m-0">
      <h3>
        {title} <span>{about}</span>
      </h3>
      <svg
        viewBox={`0 0 ${width} ${7 * cellHeight + 16}`}
        className="block w-full"
        role="img"
        aria-label={`${title}. ${said}`}
      >
        {values.map((hours, day) => (
          <DayRow key={days[day]} day={day} hours={hours} shade={shade} words={words} />
        ))}
        <Hours />
      </svg>
      <div className="text-xs text-second">{said}</div>
    </figure>
  )
}

interface DayRowProps extends Pick<StrataProps, 'words'> {
  readonly day: number
  readonly hours: readonly (number | null)[]
  readonly shade: (value: number) => number
}

const DayRow = ({ day, hours, shade, words }: DayRowProps) => (
  <g>
    <text x={0} y={day * cellHeight + 10.5} style={{ fill: 'var(--second)', fontSize: 10 }}>
      {days[day]}
    </text>
    {hours.map((value, hour) => (
      <rect
        key={hour}
        x={left + hour * cellWidth}
        y={day * cellHeight}
        width={cellWidth - 1}
        height={cellHeight - 1}
        fill={value === null ? 'none' : 'var(--d5)'}
        stroke={value === null ? 'var(--rule-fine)' : 'none'}
        opacity={value === null ? 1 : shade(value)}
      >
        <title>{`${days[day]} ${hour}:00: ${value === null ? 'not measured' : words(value)}`}</title>
      </rect>
    ))}
  </g>
)

const Hours = () =>
  [0, 6, 12, 18, 23].map(hour => (
    <text
      key={hour}
      x={left + (hour + 0.5) * cellWidth}
      y={7 * cellHeight + 11}
      textAnchor="middle"
      style={{ fill: 'var(--second)', fontSize: 10 }}
    >
      {hour}
    </text>
  ))
