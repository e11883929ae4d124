import { intakeState, suffixOf, type IntakeState } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { State, type Gravity } from '../../parts/State'
import type { TableColumn } from '../../table'
import type { IntakeRow } from './IntakeRow'
import { kindWords } from './kinds'
import { Lightbulb } from 'lucide-react'

const gravity: Readonly<Record<IntakeState, Gravity>> = {
  unassigned: 'fine',
  foreign: 'soon',
  spare: 'note',
  'in use': 'note',
  boot: 'note',
  failing: 'soon',
  failed: 'now',
}

/** What asks for work stands first, then what can be used. */
const byUrgency: readonly IntakeState[] = ['failed', 'failing', 'foreign', 'unassigned', 'spare', 'in use', 'boot']

const leftOver = ({ drive }: IntakeRow) =>
  drive.leftOver === null
    ? ''
    : `${drive.leftOver.system ?? 'unknown system'}${drive.leftOver.lastUsedAt === null ? '' : `, ${drive.leftOver.lastUsedAt.slice(0, 10)}`}`
const place = ({ systemName, place: where }: IntakeRow) => `${systemName}, ${where}`

/** The columns of the intake. */
export const intakeColumns: readonly TableColumn<IntakeRow>[] = [
  {
    id: 'label',
    head: 'Label',
    track: '62px',
    text: ({ drive }) => suffixOf(drive.serial),
    cell: ({ drive }) => (
      <>
        {suffixOf(drive.serial)}
        {drive.isLit && (
          <Lightbulb role="img" aria-label="light on" size={11} className="ml-1 inline-block align-[-1px] text-soon" />
        )}
      </>
    ),
  },
  { id: 'where', head: 'Where', track: 'minmax(0,1.5fr)', text: place },
  {
    id: 'kind',
    head: 'Kind',
    track: 'minmax(0,1.1fr)',
    text: ({ drive }) => kindWords(drive),
    order: ({ drive }) => drive.capacityBytes,
  },
  {
    id: 'role',
    head: 'Best for',
    track: '76px',
    text: ({ suggestion }) => suggestion?.role ?? '',
    cell: ({ suggestion }) => <span className="text-second">{suggestion?.role ?? ''}</span>,
  },
  {
    id: 'state',
    head: 'State',
    track: '96px',
    text: ({ drive }) => intakeState(drive),
    order: ({ drive }) => byUrgency.indexOf(intakeState(drive)),
    cell: ({ drive }) => <State gravity={gravity[intakeState(drive)]}>{intakeState(drive)}</State>,
  },
  {
    id: 'left-over',
    head: 'Left over',
    track: 'minmax(0,1.2fr)',
    text: row => [leftOver(row), ...(row.drive.leftOver?.partitions ?? [])].filter(Boolean).join('; '),
    cell: row => <span className="text-second">{leftOver(row)}</span>,
  },
  {
    id: 'serial',
    head: 'Serial number',
    track: 'minmax(0,1.2fr)',
    text: ({ drive }) => drive.serial,
    isAtFirstHidden: true,
  },
  { id: 'model', head: 'Model', track: 'minmax(0,1fr)', text: ({ drive }) => drive.model, isAtFirstHidden: true },
  { id: 'firmware', head: 'Firmware', track: '80px', text: ({ drive }) => drive.firmware ?? '', isAtFirstHidden: true },
  {
    id: 'size',
    head: 'Size',
    track: '84px',
    text: ({ drive }) => formatBytes(drive.capacityBytes),
    order: ({ drive }) => drive.capacityBytes,
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'bytes',
    head: 'Bytes',
    track: '120px',
    text: ({ drive }) => `${drive.capacityBytes}`,
    order: ({ drive }) => drive.capacityBytes,
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'hours',
    head: 'Hours',
    track: '70px',
    text: ({ drive }) => (drive.powerOnHours === null ? '' : `${drive.powerOnHours}`),
    order: ({ drive }) => drive.powerOnHours ?? -1,
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'writes',
    head: 'Full writes a day',
    track: '110px',
    text: ({ drive }) => (drive.driveWritesPerDay === null ? '' : `${drive.driveWritesPerDay}`),
    order: ({ drive }) => drive.driveWritesPerDay ?? -1,
    isNumber: true,
    isAtFirstHidden: true,
  },
]
