'use client'
import { countWords, formatBytes } from '@/core/units'
import type { DriveLine } from '@/core/views'
import { ServerTable, type ServerPage } from '../../table'
import { BulkBar } from '../../drafts/BulkBar'
import { bulkDrafts, type IntakeSystem } from './bulkDrafts'
import { intakeColumns } from './intakeColumns'

interface IntakeListProps {
  readonly first: ServerPage<DriveLine>
  /** What the list was asked for, as a query without offset and limit. */
  readonly question: string
  readonly systems: readonly IntakeSystem[]
  readonly selected: string | undefined
  /** Whether they all stand in one system, whose page says what else there is of it. */
  readonly isOfOneSystem?: boolean
}

const chosenWords = (drives: readonly DriveLine[]) =>
  `${countWords(drives.length, 'drive', 'drives')} chosen, ${formatBytes(drives.reduce((sum, each) => sum + BigInt(each.capacityBytes), 0n))}`

const shownOfOne = new Set(['label', 'where', 'kind', 'pool', 'state', 'hours', 'wear'])
const columnsOfOne = intakeColumns.map(column => ({
  ...column,
  isAtFirstHidden: !shownOfOne.has(column.id),
  // Which system it is, its page says already.
  ...(column.id === 'where'
    ? { text: ({ standsIn, bay }: DriveLine) => `${standsIn === '' ? '' : `${standsIn}, `}bay ${bay}` }
    : {}),
  ...(column.id === 'pool' ? { track: 'minmax(0,1.8fr)' } : {}),
}))

/** Drives as they stand in the intake, of the estate or of one system: what asks for work first; several are taken into one draft. */
export const IntakeList = ({ first, question, systems, selected, isOfOneSystem = false }: IntakeListProps) => (
  <section>
    <h3>
      {isOfOneSystem ? 'Drives' : 'Intake'} <span>what asks for work stands first</span>
    </h3>
    <ServerTable
      label="Drives"
      path="/intake"
      question={question}
      first={first}
      columns={isOfOneSystem ? columnsOfOne : intakeColumns}
      idOf={line => line.id}
      sortAtFirst="state"
      selected={selected}
      selectedBy="drive"
      filterWords="Filter drives"
      bulk={chosen => <BulkBar words={chosenWords(chosen)} drafts={bulkDrafts(chosen, systems)} />}
      mostPixels={350}
    />
  </section>
)
