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
}

const chosenWords = (drives: readonly DriveLine[]) =>
  `${countWords(drives.length, 'drive', 'drives')} chosen, ${formatBytes(drives.reduce((sum, each) => sum + BigInt(each.capacityBytes), 0n))}`

/** Every drive of the estate as it stands in the intake: what asks for work first; several are taken into one draft. */
export const IntakeList = ({ first, question, systems, selected }: IntakeListProps) => (
  <section>
    <h3>
      Intake <span>what asks for work stands first</span>
    </h3>
    <ServerTable
      label="Drives"
      path="/intake"
      question={question}
      first={first}
      columns={intakeColumns}
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
