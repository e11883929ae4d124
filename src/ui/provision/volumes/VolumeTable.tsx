'use client'
import { countWords, formatBytes } from '@/core/units'
import type { VolumeLine } from '@/core/views'
import { BulkBar } from '../../drafts/BulkBar'
import { Bytes } from '../../parts/Bytes'
import { Mark, State, type Gravity } from '../../parts/State'
import { ServerTable, type ServerColumn, type ServerPage } from '../../table'
import { VolumeFilter, type Named } from './VolumeFilter'
import { volumeDrafts } from './volumeDrafts'

interface VolumeTableProps {
  readonly first: ServerPage<VolumeLine>
  /** What the list was asked for, as a query without offset and limit. */
  readonly question: string
  readonly selected: string | undefined
  readonly pools: readonly Named[]
  readonly classes: readonly Named[]
}

const stateOf = ({ missingSince, state, follows }: VolumeLine) =>
  missingSince !== null ? 'missing' : follows && state === 'in use' ? 'follows' : state
const gravity: Readonly<Record<ReturnType<typeof stateOf>, Gravity>> = {
  'in use': 'fine',
  follows: 'note',
  holding: 'soon',
  missing: 'now',
}
const bytesColumn = (id: string, head: string, bytes: (line: VolumeLine) => string): ServerColumn<VolumeLine> => ({
  id,
  head,
  track: '74px',
  sort: id,
  isNumber: true,
  text: line => bytes(line),
  cell: line => <Bytes bytes={bytes(line)} />,
})

const keptGravity: Readonly<Record<NonNullable<VolumeLine['promises']>, Gravity>> = {
  kept: 'fine',
  'at risk': 'soon',
  broken: 'now',
  'not measured': 'unknown',
}

/** A class, and by a mark how the worst of its promises is kept. */
const ClassOf = ({ line: { className, promises } }: { readonly line: VolumeLine }) =>
  className === null ? (
    <span className="text-faint">none</span>
  ) : (
    <span className="flex min-w-0 items-baseline gap-[5px]" title={promises ?? undefined}>
      {promises !== null && (
        <>
          <Mark gravity={keptGravity[promises]} />
          <span className="sr-only">{promises}</span>
        </>
      )}
      <span className="truncate">{className}</span>
    </span>
  )

/** How much more, or less, is written than a week ago. */
function growthWords(bytes: number): string {
  const whole = BigInt(Math.round(Math.abs(bytes)))
  return whole < 1_048_576n ? '0' : `${bytes < 0 ? '−' : '+'}${formatBytes(whole)}`
}

/** Groups that see it as a disk, and the share whose files it carries. */
const seenBy = ({ groupNames, shareNames }: VolumeLine) =>
  [...groupNames, ...shareNames.map(name => `share ${name}`)].join(', ')

const columns: readonly ServerColumn<VolumeLine>[] = [
  { id: 'name', head: 'Volume', track: 'minmax(118px,2.2fr)', sort: 'name', text: line => line.name },
  {
    id: 'pool',
    head: 'Pool',
    track: 'minmax(60px,1.3fr)',
    text: line => `${line.poolName} on ${line.systemName}`,
    cell: line => line.poolName,
  },
  {
    id: 'class',
    head: 'Class, kept',
    track: 'minmax(84px,1.3fr)',
    text: line => (line.className === null ? '' : `${line.className}: ${line.promises ?? 'not judged'}`),
    cell: line => <ClassOf line={line} />,
  },
  {
    id: 'seen',
    head: 'Seen by',
    track: 'minmax(56px,1.4fr)',
    text: line => seenBy(line),
    cell: line => (seenBy(line) === '' ? <span className="text-faint">nobody</span> : seenBy(line)),
  },
  bytesColumn('size', 'Size', line => line.sizeBytes),
  bytesColumn('written', 'Written', line => line.writtenBytes),
  {
    id: 'growth',
    head: 'In a week',
    track: '78px',
    isNumber: true,
    text: line => (line.growthBytes === null ? '' : growthWords(line.growthBytes)),
    cell: line =>
      line.growthBytes === null ? (
        <span className="text-faint">?</span>
      ) : (
        <span className="mono">{growthWords(line.growthBytes)}</span>
      ),
  },
  { id: 'space', head: 'Space', track: '52px', text: line => (line.isThin ? 'thin' : 'thick'), isAtFirstHidden: true },
  {
    id: 'state',
    head: 'State',
    track: '72px',
    text: stateOf,
    cell: line => <State gravity={gravity[stateOf(line)]}>{stateOf(line)}</State>,
  },
  {
    id: 'application',
    head: 'Application',
    track: 'minmax(80px,1fr)',
    text: line => line.application ?? '',
    cell: line => line.application ?? <span className="text-faint">none</span>,
    isAtFirstHidden: true,
  },
  { id: 'system', head: 'System', track: 'minmax(80px,1fr)', text: line => line.systemName, isAtFirstHidden: true },
  {
    id: 'naa',
    head: 'WWN',
    track: '270px',
    text: line => line.naa,
    cell: line => <span className="mono">{line.naa}</span>,
    isAtFirstHidden: true,
  },
]

const chosenWords = (volumes: readonly VolumeLine[]) =>
  `${countWords(volumes.length, 'volume', 'volumes')} chosen, ${formatBytes(volumes.reduce((sum, each) => sum + BigInt(each.sizeBytes), 0n))}`

/** All volumes, filtered by name, WWN, pool and state. */
export function VolumeTable({ first, question, selected, pools, classes }: VolumeTableProps) {
  return (
    <ServerTable
      label="Volumes"
      path="/volumes"
      question={question}
      first={first}
      columns={columns}
      idOf={line => line.id}
      sortAtFirst="name"
      selected={selected}
      filterWords="Name, WWN, host, LUN"
      filters={<VolumeFilter pools={pools} classes={classes} />}
      bulk={chosen => <BulkBar words={chosenWords(chosen)} drafts={volumeDrafts(chosen)} />}
    />
  )
}
