import { provisionableBytes } from '@/core/estate'
import type { DailyLevels } from '@/core/metrics'
import { tebibytes } from '@/core/units'
import type { PoolFilling } from '@/core/views'
import { Spark } from '../../drawings/growth'
import { State } from '../../parts/State'
import { RowLink, Table } from '../../parts/Table'
import { dueState, dueWords } from './dueWords'
import { growthWords } from './growthWords'

interface PoolsByDateProps {
  readonly pools: readonly PoolFilling[]
  readonly levels: ReadonlyMap<string, DailyLevels>
  readonly selected: string | undefined
}

/** All pools, what is past its limit first, then by the day on which it is likely to be reached. */
export const PoolsByDate = ({ pools, levels, selected }: PoolsByDateProps) => (
  <Table
    rows={pools}
    keyOf={({ pool }) => pool.id}
    isSelected={({ pool }) => pool.id === selected}
    columns={[
      {
        head: 'Pool',
        cell: ({ pool }) => <RowLink href={`/watch?sel=${pool.id}`}>{pool.name}</RowLink>,
      },
      { head: 'For volumes', cell: ({ pool }) => tebibytes(provisionableBytes(pool)), isNumber: true },
      { head: 'Written', cell: ({ pool }) => tebibytes(pool.writtenBytes), isNumber: true },
      {
        head: 'From its lowest to the limit',
        cell: ({ pool, outlook }) => {
          const own = levels.get(pool.id)
          return own === undefined || outlook === undefined ? null : <Spark levels={own} outlook={outlook} />
        },
        className: 'max-md:hidden',
      },
      {
        head: 'A day',
        cell: ({ outlook }) => (outlook === undefined || 'why' in outlook ? '' : growthWords(outlook.slopeBytesPerDay)),
        isNumber: true,
        className: 'whitespace-nowrap',
      },
      {
        head: 'Limit reached',
        cell: ({ outlook }) => dueWords(outlook),
        className: 'whitespace-nowrap',
      },
      {
        head: 'State',
        cell: ({ outlook }) => {
          const { gravity, words } = dueState(outlook)
          return <State gravity={gravity}>{words}</State>
        },
        className: 'whitespace-nowrap',
      },
    ]}
  />
)
