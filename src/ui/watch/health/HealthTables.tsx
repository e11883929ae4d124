import type { HealthPage } from '@/core/views'
import { Ago } from '../../parts/Ago'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { RowLink, Table } from '../../parts/Table'
import { refusedWords, sensorMark, wearOutWords } from './healthWords'

/** Drives that are not well, then those that are worn most. */
export const Drives = ({ drives }: Pick<HealthPage, 'drives'>) => (
  <Table
    rows={drives}
    keyOf={({ id }) => id}
    columns={[
      { head: 'Drive', cell: ({ id, serial }) => <RowLink href={`/build/drives?drive=${id}`}>{serial}</RowLink> },
      { head: 'Where', cell: ({ systemName, name, poolName }) => `${systemName}, ${poolName ?? name}` },
      { head: 'Model', cell: ({ model }) => model },
      {
        head: 'Life used',
        cell: ({ wearRatio }) => (wearRatio === null ? '' : `${(wearRatio * 100).toFixed(0)}%`),
        isNumber: true,
      },
      { head: 'Hours', cell: ({ powerOnHours }) => powerOnHours?.toLocaleString('en') ?? '', isNumber: true },
      { head: 'Worn out', cell: wearOutWords, className: 'whitespace-nowrap' },
      {
        head: 'State',
        cell: ({ state }) =>
          state === 'fine' ? <State gravity="fine">in order</State> : <State gravity="now">{state}</State>,
      },
    ]}
  />
)

/** Units as people write them; systems write them as UCUM does. */
const unitWords = (unit: string) => (unit === 'Cel' ? '°C' : unit)

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
      { head: 'Reading', cell: ({ reading, unit }) => `${reading} ${unitWords(unit)}`, isNumber: true },
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
