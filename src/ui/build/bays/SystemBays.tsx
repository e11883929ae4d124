'use client'
import { useMemo, useRef } from 'react'
import type { Drive, Enclosure, Pool } from '@/core/estate'
import { unpacked, type Packed } from '@/core/views'
import { usePoolChoice } from '../../drafts/PoolChoice'
import { Bays, type BayMark } from './Bays'
import { BaysTogether } from './BaysTogether'
import { groupColour } from './groupColours'

/** Above this, bays are drawn together on a canvas instead of as parts of the page. */
const mostParts = 240

interface SystemBaysProps {
  readonly systemId: string
  readonly enclosures: readonly Enclosure[]
  readonly drives: Packed<Drive>
  readonly pools: readonly Pool[]
  readonly highlighted?: string | undefined
}

/** All enclosures of a system; while a pool is drafted, its drives are chosen here and its groups drawn as they would be. */
export function SystemBays({ systemId, enclosures, drives: given, pools, highlighted }: SystemBaysProps) {
  const drives = useMemo(() => unpacked(given), [given])
  const { isOpen, chosen, choose, sketch } = usePoolChoice()
  const last = useRef<string>(undefined)
  const marks = marksFor(drives, pools, sketch)
  const toggle = (id: string, isRange: boolean) => {
    const range = isRange ? between(drives, last.current ?? id, id) : [id]
    last.current = id
    const isTaken = chosen.includes(id)
    const others = chosen.filter(each => !range.includes(each))
    choose(isTaken && !isRange ? others : [...others, ...range])
  }
  return (
    <>
      {drives.length > mostParts ? (
        <BaysTogether {...{ systemId, enclosures, drives, marks, highlighted }} />
      ) : (
        enclosures.map(enclosure => (
          <EnclosureBays
            key={enclosure.id}
            enclosure={enclosure}
            own={drives.filter(drive => drive.enclosureId === enclosure.id)}
            isOpen={isOpen}
            marks={marks}
            chosenSet={new Set(chosen)}
            toggle={toggle}
            highlighted={highlighted}
          />
        ))
      )}
      <Legend
        pools={pools}
        sketchGroups={sketch?.groups.map(group => group.words) ?? []}
        spares={sketch?.spareDriveIds.length ?? 0}
        media={new Set(drives.map(drive => drive.media))}
        hasSpares={drives.some(drive => drive.role === 'spare')}
      />
    </>
  )
}

/** Free drives from one to another, in their order. */
function between(drives: readonly Drive[], from: string, to: string): readonly string[] {
  const order = drives.filter(drive => drive.role === 'unassigned' && drive.state === 'fine').map(drive => drive.id)
  const [a = -1, b = -1] = [order.indexOf(from), order.indexOf(to)].sort((x, y) => x - y)
  return a < 0 ? [to] : order.slice(a, b + 1)
}

/** What each bay is part of, as it is and as the draft would have it. */
function marksFor(
  drives: readonly Drive[],
  pools: readonly Pool[],
  sketch: ReturnType<typeof usePoolChoice>['sketch'],
): ReadonlyMap<string, BayMark> {
  const marks = new Map<string, BayMark>(drives.flatMap(drive => markOf(drive, pools)))
  sketch?.groups.forEach((group, index) =>
    group.driveIds.forEach(id =>
      marks.set(id, {
        words: `group ${index + 1} of the draft, ${group.words}`,
        colour: groupColour(index),
        isSpare: false,
      }),
    ),
  )
  sketch?.spareDriveIds.forEach(id =>
    marks.set(id, { words: 'spare of the draft', colour: 'var(--faint)', isSpare: true }),
  )
  return marks
}

function markOf(drive: Drive, pools: readonly Pool[]): [string, BayMark][] {
  const index = pools.findIndex(pool => pool.id === drive.poolId)
  const pool = pools[index]
  if (pool === undefined) return []
  const words =
    drive.role === 'spare' ? `spare of ${pool.name}` : `group ${(drive.groupIndex ?? 0) + 1} of ${pool.name}`
  return [
    [drive.id, { words, colour: groupColour(index * 4 + (drive.groupIndex ?? 0)), isSpare: drive.role === 'spare' }],
  ]
}

interface LegendProps {
  readonly pools: readonly Pool[]
  readonly sketchGroups: readonly string[]
  readonly spares: number
  readonly media: ReadonlySet<Drive['media']>
  readonly hasSpares: boolean
}

/** What the colours and textures stand for; each is said in words on the bay itself too. */
function Legend({ pools, sketchGroups, spares, media, hasSpares }: LegendProps) {
  const swatch = (colour: string) => (
    <i
      aria-hidden
      className="mr-[5px] inline-block h-[10px] w-[10px] border align-[-1px]"
      style={{ borderColor: colour, background: `color-mix(in srgb, ${colour} 20%, var(--sheet))` }}
    />
  )
  const groups = pools.flatMap((pool, index) =>
    pool.groupSizes.map((size, group) => ({
      key: `${pool.id}/${group}`,
      words: `${pool.name} group ${group + 1} (${size})`,
      colour: groupColour(index * 4 + group),
    })),
  )
  return (
    <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-sm text-second">
      {groups.map(group => (
        <span key={group.key}>
          {swatch(group.colour)}
          {group.words}
        </span>
      ))}
      {sketchGroups.map((words, index) => (
        <span key={`${words}/${index}`}>
          {swatch(groupColour(index))}
          draft: group {index + 1}, {words}
        </span>
      ))}
      {spares > 0 && <span>▨ draft: {spares === 1 ? 'one spare' : `${spares} spares`}</span>}
      {media.has('HDD') && <span>○ disk</span>}
      {media.has('SSD') && <span>— flash</span>}
      {hasSpares && <span>▨ spare</span>}
    </div>
  )
}

interface EnclosureBaysProps {
  readonly enclosure: Enclosure
  readonly own: readonly Drive[]
  readonly isOpen: boolean
  readonly marks: ReadonlyMap<string, BayMark>
  readonly chosenSet: ReadonlySet<string>
  readonly toggle: (id: string, isRange: boolean) => void
  readonly highlighted: string | undefined
}

const EnclosureBays = ({ enclosure, own, isOpen, marks, chosenSet, toggle, highlighted }: EnclosureBaysProps) => (
  <figure className="m-0">
    <h3>
      {enclosure.name}
      <span>
        {own.length} drives in {enclosure.bayCount} bays{isOpen ? '; choose with a click or Space' : ''}
      </span>
    </h3>
    <Bays
      enclosure={enclosure}
      drives={own}
      marks={marks}
      chosen={isOpen ? chosenSet : undefined}
      onToggle={isOpen ? toggle : undefined}
      highlighted={highlighted}
    />
  </figure>
)
