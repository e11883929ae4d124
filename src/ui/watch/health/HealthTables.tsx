import { boardQuery, plainLane } from '@/core/board'
import type { HealthPage, WornLine } from '@/core/views'
import { Ago } from '../../parts/Ago'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { RowLink, Table } from '../../parts/Table'
import { errorWords, refusedWords, sensorMark, wearOutWords } from './healthWords'

/** Drives that are not well, then those that have erred most, then those that are worn most. */
export const Drives = ({ drives, findings }: Pick<HealthPage, 'drives' | 'findings'>) => (
  <Table
    rows={drives}
    keyOf={({ id }) => id}
    columns={[
      { head: 'Drive', cell: ({ id, serial }) => <RowLink href={`/build/drives?drive=${id}`}>{serial}</RowLink> },
      { head: 'Where', cell: ({ systemName, name, poolName }) => `${systemName}, ${poolName ?? name}` },
      { head: 'Model', cell: ({ model }) => model },
      { head: 'Errors', cell: drive => <Errors drive={drive} />, isNumber: true },
      {
        head: 'Life used',
        cell: ({ wearRatio }) => (wearRatio === null ? '' : `${(wearRatio * 100).toFixed(0)}%`),
        isNumber: true,
      },
      { head: 'Hours', cell: ({ powerOnHours }) => powerOnHours?.toLocaleString('en') ?? '', isNumber: true },
      { head: 'Worn out', cell: wearOutWords, className: 'whitespace-nowrap' },
      {
        head: 'State',
        cell: ({ id, state }) =>
          state !== 'fine' ? (
            <State gravity="now">{state}</State>
          ) : findings.some(each => each.finding.key === `drive-errors/${id}`) ? (
            <State gravity="soon">errs more</State>
          ) : (
            <State gravity="fine">in order</State>
          ),
        className: 'whitespace-nowrap',
      },
    ]}
  />
)

/** What a drive has counted leads to its course, beside how fast its pool answers. */
function Errors({ drive }: { readonly drive: WornLine }) {
  const { id, poolId, correctedErrors, lostErrors } = drive
  const words = errorWords(drive)
  if ((correctedErrors ?? 0) + (lostErrors ?? 0) === 0) return <span className="text-second">{words}</span>
  const lanes = [
    plainLane({ metric: 'errors', objectId: id }),
    ...(poolId === null ? [] : [plainLane({ metric: 'latency', objectId: poolId })]),
  ]
  return <RowLink href={`/watch/board?${boardQuery({ lanes, hours: 672, until: null, chosen: 0 })}`}>{words}</RowLink>
}

/** Units as people write them; systems write them as UCUM does. */
const unitWords = (unit: string) => (unit === 'Cel' ? '°C' : unit)

/** A temperature leads to the course of the warmest of its system. */
function Reading({ sensor: { systemId, reading, unit } }: { readonly sensor: HealthPage['sensors'][number] }) {
  const words = `${reading} ${unitWords(unit)}`
  if (unit !== 'Cel') return words
  const lanes = [plainLane({ metric: 'warmth', objectId: systemId })]
  return <RowLink href={`/watch/board?${boardQuery({ lanes, hours: 168, until: null, chosen: 0 })}`}>{words}</RowLink>
}

/** The sensors that stand nearest to their caution. */
export const Sensors = ({ sensors }: Pick<HealthPage, 'sensors'>) => (
  <Table
    rows={sensors}
    keyOf={({ systemId, name }) => `${systemId}/${name}`}
    columns={[
      { head: 'Sensor', cell: ({ name }) => name },
      {
        head: 'System',
        cell: ({ systemId, systemName }) => <RowLink href={`/build/systems/${systemId}`}>{systemName}</RowLink>,
      },
      { head: 'Reading', cell: sensor => <Reading sensor={sensor} />, isNumber: true },
      {
        head: 'Caution',
        cell: ({ cautionAt, unit }) => (cautionAt === null ? '' : `${cautionAt} ${unitWords(unit)}`),
        isNumber: true,
      },
      {
        head: 'State',
        cell: sensor => {
          const { gravity, words } = sensorMark(sensor)
          return <State gravity={gravity}>{words}</State>
        },
      },
    ]}
  />
)

/** How fresh what is known of each system is, and what of it could not be kept. */
export const Sources = ({ sources }: Pick<HealthPage, 'sources'>) => (
  <Table
    rows={sources}
    keyOf={({ id }) => id}
    columns={[
      { head: 'System', cell: ({ id, name }) => <RowLink href={`/build/systems/${id}`}>{name}</RowLink> },
      { head: 'Read', cell: ({ seenAt }) => (seenAt === null ? 'never' : <Ago at={seenAt} />) },
      { head: 'Space known until', cell: ({ levelsUntil }) => <Until at={levelsUntil} /> },
      { head: 'Speed known until', cell: ({ countersUntil }) => <Until at={countersUntil} /> },
      {
        head: 'Not kept',
        cell: source => refusedWords(source) || <span className="text-second">nothing</span>,
      },
      {
        head: 'State',
        cell: ({ reach, gapSince }) =>
          reach !== 'answering' ? (
            <State gravity="now">silent</State>
          ) : gapSince === null ? (
            <State gravity="fine">complete</State>
          ) : (
            <State gravity="soon">a gap is being filled</State>
          ),
        className: 'whitespace-nowrap',
      },
    ]}
  />
)

const Until = ({ at }: { readonly at: string | null }) =>
  at === null ? <span className="text-second">not stated</span> : <Moment at={at} />
