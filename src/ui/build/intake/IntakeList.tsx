'use client'
import { useRouter } from 'next/navigation'
import { DataTable } from '../../table'
import { BulkBar } from './BulkBar'
import type { IntakeSystem } from './bulkDrafts'
import { intakeColumns } from './intakeColumns'
import type { IntakeRow } from './IntakeRow'

interface IntakeListProps {
  readonly rows: readonly IntakeRow[]
  readonly systems: readonly IntakeSystem[]
  readonly selected: string | undefined
}

const idOf = ({ drive }: IntakeRow) => drive.id

/** Every drive of the estate as it stands in the intake: what asks for work first; several are taken into one draft. */
export function IntakeList({ rows, systems, selected }: IntakeListProps) {
  const router = useRouter()
  const open = ({ drive }: IntakeRow) => {
    const query = new URLSearchParams(window.location.search)
    for (const name of ['draft', 'change']) query.delete(name)
    query.set('drive', drive.id)
    router.push(`/build/drives?${query}`, { scroll: false })
  }
  return (
    <section>
      <h3>
        Intake <span>what asks for work stands first</span>
      </h3>
      <DataTable
        label="Drives"
        rows={rows}
        columns={intakeColumns}
        idOf={idOf}
        sortAtFirst="state"
        selected={selected}
        onOpen={open}
        csvName="drives.csv"
        bulk={chosen => <BulkBar drives={chosen.map(({ drive }) => drive)} systems={systems} />}
      />
    </section>
  )
}
