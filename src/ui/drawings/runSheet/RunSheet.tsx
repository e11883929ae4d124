import { scaleLinear } from 'd3-scale'
import type { Lane } from '@/core/plan'
import type { Timeline } from '@/core/views'
import { formatSeconds } from '@/core/units'
import { timeTicks } from './timeTicks'

const widthPixels = 760
const namePixels = 210
const lanePixels = 38

const gravity: Readonly<Record<Lane['state'], string>> = {
  waiting: 'waiting',
  running: 'running',
  done: 'done',
  failed: 'failed',
  undone: 'taken back',
}

/** The steps of a change as lanes in time: the forecast as an outline, what happened as fill. */
export function RunSheet({ timeline }: { readonly timeline: Timeline }) {
  const { lanes, nowSeconds, proofFrom, proofTo, clock } = timeline
  const latest = Math.max(
    1,
    nowSeconds ?? 0,
    proofTo ?? 0,
    ...lanes.map(lane => Math.max(lane.forecastLatest, lane.to ?? 0)),
  )
  const x = scaleLinear([0, latest], [namePixels, widthPixels - 40])
  const height = (lanes.length + (proofFrom === null ? 0 : 1)) * lanePixels + 22
  const words = lanes
    .map(lane => `${lane.words}: ${gravity[lane.state]}, ${Math.round(lane.doneRatio * 100)}%`)
    .join('; ')
  return (
    <figure className="m-0">
      <h3>
        Run sheet{' '}
        <span>
          forecast outlined, its range dashed, what happened filled
          {clock === 'estate' ? ', by the systems’ own time' : ''}
        </span>
      </h3>
      <svg viewBox={`0 0 ${widthPixels} ${height}`} className="block w-full" role="img" aria-label={words}>
        {timeTicks(latest, 6).map(tick => (
          <Tick key={tick} at={x(tick)} seconds={tick} height={height} />
        ))}
        {lanes.map((lane, index) => (
          <LaneRow key={lane.name} lane={lane} index={index} x={x} />
        ))}
        {proofFrom !== null && <ProofRow index={lanes.length} from={proofFrom} to={proofTo ?? proofFrom} x={x} />}
        {nowSeconds !== null && <NowLine x={x} nowSeconds={nowSeconds} height={height} />}
      </svg>
    </figure>
  )
}

type Scale = (seconds: number) => number

interface TickProps {
  readonly at: number
  readonly seconds: number
  readonly height: number
}

const Tick = ({ at, seconds, height }: TickProps) => (
  <g>
    <line x1={at} x2={at} y1={0} y2={height - 18} stroke="var(--rule-fine)" />
    <text
      x={at}
      y={height - 5}
      textAnchor={seconds === 0 ? 'start' : 'middle'}
      style={{ fill: 'var(--faint)', fontFamily: 'var(--font-mono)', fontSize: 10 }}
    >
      {seconds === 0 ? 'start' : formatSeconds(seconds)}
    </text>
  </g>
)

interface LaneRowProps {
  readonly lane: Lane
  readonly index: number
  readonly x: Scale
}

const happened = ({ state }: Lane) =>
  state === 'failed' ? 'var(--now)' : state === 'undone' ? 'var(--faint)' : 'var(--d4)'

const LaneRow = ({ lane, index, x }: LaneRowProps) => (
  <g transform={`translate(0 ${index * lanePixels + 8})`}>
    <text x={0} y={13} fontWeight={lane.state === 'running' ? 600 : 400}>
      {lane.words.length > 34 ? `${lane.words.slice(0, 33)}…` : lane.words}
      <title>{lane.words}</title>
    </text>
    <line x1={x(lane.forecastTo)} x2={x(lane.forecastLatest)} y1={9} y2={9} stroke="var(--d4)" strokeDasharray="3 3" />
    <rect
      x={x(lane.forecastFrom)}
      y={1}
      width={Math.max(2, x(lane.forecastTo) - x(lane.forecastFrom))}
      height={16}
      fill="none"
      stroke="var(--d4)"
    />
    {lane.from !== null && lane.to !== null && (
      <rect
        x={x(lane.from)}
        y={3}
        width={Math.max(2, x(lane.to) - x(lane.from))}
        height={12}
        fill={happened(lane)}
        opacity={0.6}
      />
    )}
  </g>
)

interface ProofRowProps {
  readonly index: number
  readonly from: number
  readonly to: number
  readonly x: Scale
}

const ProofRow = ({ index, from, to, x }: ProofRowProps) => (
  <g transform={`translate(0 ${index * lanePixels + 8})`}>
    <text x={0} y={13}>
      Prove it
    </text>
    <rect x={x(from)} y={3} width={Math.max(2, x(to) - x(from))} height={12} fill="var(--d1)" opacity={0.7} />
  </g>
)

interface NowLineProps {
  readonly x: Scale
  readonly nowSeconds: number
  readonly height: number
}

const NowLine = ({ x, nowSeconds, height }: NowLineProps) => (
  <line x1={x(nowSeconds)} x2={x(nowSeconds)} y1={0} y2={height - 18} stroke="var(--action)" strokeWidth={1.5} />
)
