import { Lightbulb } from 'lucide-react'
import { kindWords, suffixOf, type IntakeState } from '@/core/estate'
import { formatBytes } from '@/core/units'
import type { DriveLine, DriveSort } from '@/core/views'
import { State, type Gravity } from '../../parts/State'
import type { ServerColumn } from '../../table'

const gravity: Readonly<Record<IntakeState, Gravity>> = {
  unassigned: 'fine',
  foreign: 'soon',
  spare: 'note',
  'in use': 'note',
  boot: 'note',
  failing: 'soon',
  failed: 'now',
}

const leftOver = ({ leftOver: left }: DriveLine) =>
  left === null
    ? ''
    : `${left.system ?? 'unknown system'}${left.lastUsedAt === null ? '' : `, ${left.lastUsedAt.slice(0, 10)}`}`
const place = ({ systemName, standsIn, bay }: DriveLine) =>
  `${systemName}, ${standsIn === '' ? '' : `${standsIn}, `}bay ${bay}`
const usedIn = ({ poolName, groupIndex, intake }: DriveLine) =>
  poolName === null
    ? ''
    : `${poolName}${intake === 'spare' ? ', spare' : groupIndex === null ? '' : `, group ${groupIndex + 1}`}`
const figure = (value: number | null) => (value === null ? '' : `${value}`)

interface Column extends ServerColumn<DriveLine> {
  readonly sort?: DriveSort
}

/** The columns of the intake. */
export const intakeColumns: readonly Column[] = [
  {
    id: 'label',
    head: 'Label',
    track: '62px',
    sort: 'label',
    text: ({ serial }) => suffixOf(serial),
    cell: ({ serial, isLit }) => (
      <span className="mono">
        {suffixOf(serial)}
        {isLit && (
          <Lightbulb role="img" aria-label="light on" size={11} className="ml-1 inline-block align-[-1px] text-soon" />
        )}
      </span>
    ),
  },
  { id: 'where', head: 'Where', track: 'minmax(0,1.5fr)', sort: 'where', text: place },
  {
    id: 'kind',
    head: 'Kind',
    track: 'minmax(0,1.1fr)',
    sort: 'kind',
    text: line => kindWords({ ...line, capacityBytes: BigInt(line.capacityBytes) }),
  },
  {
    id: 'role',
    head: 'Best for',
    track: '76px',
    text: ({ bestFor }) => bestFor ?? '',
    cell: ({ bestFor }) => <span className="text-second">{bestFor ?? ''}</span>,
  },
  {
    id: 'state',
    head: 'State',
    track: '96px',
    sort: 'state',
    text: ({ intake }) => intake,
    cell: ({ intake }) => <State gravity={gravity[intake]}>{intake}</State>,
  },
  {
    id: 'pool',
    head: 'In',
    track: 'minmax(0,1.2fr)',
    text: usedIn,
    cell: line => (line.poolName === null ? <span className="text-faint">no pool</span> : usedIn(line)),
    isAtFirstHidden: true,
  },
  {
    id: 'wear',
    head: 'Wear',
    track: '58px',
    text: ({ wearRatio }) => (wearRatio === null ? '' : `${Math.round(wearRatio * 100)}%`),
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'left-over',
    head: 'Left over',
    track: 'minmax(0,1.2fr)',
    text: line => [leftOver(line), ...(line.leftOver?.partitions ?? [])].filter(Boolean).join('; '),
    cell: line => <span className="text-second">{leftOver(line)}</span>,
  },
  {
    id: 'serial',
    head: 'Serial number',
    track: 'minmax(0,1.2fr)',
    sort: 'serial',
    text: ({ serial }) => serial,
    isAtFirstHidden: true,
  },
  {
    id: 'model',
    head: 'Model',
    track: 'minmax(0,1fr)',
    sort: 'model',
    text: ({ model }) => model,
    isAtFirstHidden: true,
  },
  { id: 'firmware', head: 'Firmware', track: '80px', text: ({ firmware }) => firmware ?? '', isAtFirstHidden: true },
  {
    id: 'size',
    head: 'Size',
    track: '84px',
    sort: 'size',
    text: ({ capacityBytes }) => formatBytes(BigInt(capacityBytes)),
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'bytes',
    head: 'Bytes',
    track: '120px',
    text: ({ capacityBytes }) => capacityBytes,
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'hours',
    head: 'Hours',
    track: '70px',
    sort: 'hours',
    text: ({ powerOnHours }) => figure(powerOnHours),
    isNumber: true,
    isAtFirstHidden: true,
  },
  {
    id: 'writes',
    head: 'Full writes a day',
    track: '110px',
    sort: 'writes',
    text: ({ driveWritesPerDay }) => figure(driveWritesPerDay),
    isNumber: true,
    isAtFirstHidden: true,
  },
]
