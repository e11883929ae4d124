'use client'
import type { KeyboardEvent, MouseEvent } from 'react'
import { kindWords, suffixOf, type Drive, type Enclosure } from '@/core/estate'
import { Hatch } from '../../parts/Hatch'
import { bayGrid, type BayPlace } from './bayGrid'

/** What a bay shows besides its drive: the group or pool that it belongs to, or that the draft gives it. */
export interface BayMark {
  readonly words: string
  readonly colour: string
  readonly isSpare: boolean
}

interface BaysProps {
  readonly enclosure: Enclosure
  readonly drives: readonly Drive[]
  readonly marks: ReadonlyMap<string, BayMark>
  readonly chosen?: ReadonlySet<string> | undefined
  readonly onToggle?: ((driveId: string, isRange: boolean) => void) | undefined
  readonly highlighted?: string | undefined
}

const widthPixels = 760

/** An enclosure with its bays as they stand in the rack: media by texture, state by mark, the end of the serial number as on the label. */
export function Bays({ enclosure, drives, marks, chosen, onToggle, highlighted }: BaysProps) {
  const { places, height, isUpright } = bayGrid(enclosure.bayCount, enclosure.baysPerRow, widthPixels - 16)
  const byBay = new Map(drives.map(drive => [drive.bay, drive]))
  const label = `${enclosure.name}: ${drives.length} drives in ${enclosure.bayCount} bays`
  return (
    <svg viewBox={`0 0 ${widthPixels} ${height + 16}`} className="block w-full" role="group" aria-label={label}>
      <Hatch id={`spare-${enclosure.id}`} />
      <rect x={0.5} y={0.5} width={widthPixels - 1} height={height + 15} fill="var(--sheet)" stroke="var(--rule)" />
      {places.map(place => {
        const drive = byBay.get(place.bay)
        return drive === undefined ? (
          <rect
            key={place.bay}
            x={place.x + 8}
            y={place.y + 8}
            width={place.width}
            height={place.height}
            fill="none"
            stroke="var(--rule)"
            strokeDasharray="3 3"
          />
        ) : (
          <Bay
            key={place.bay}
            place={place}
            drive={drive}
            mark={marks.get(drive.id)}
            isUpright={isUpright}
            spareFill={`url(#spare-${enclosure.id})`}
            isChosen={chosen?.has(drive.id)}
            isHighlighted={highlighted === drive.id}
            onToggle={onToggle}
          />
        )
      })}
    </svg>
  )
}

interface BayProps {
  readonly place: BayPlace
  readonly drive: Drive
  readonly mark: BayMark | undefined
  readonly isUpright: boolean
  readonly spareFill: string
  readonly isChosen: boolean | undefined
  readonly isHighlighted: boolean
  readonly onToggle: BaysProps['onToggle']
}

function Bay(props: BayProps) {
  const { place, drive, mark, isUpright, spareFill, isChosen, isHighlighted, onToggle } = props
  const { x, y, width, height } = place
  const canChoose = onToggle !== undefined && drive.role === 'unassigned' && drive.state === 'fine'
  const colour = mark?.colour ?? 'var(--faint)'
  const fill = mark === undefined ? 'transparent' : `color-mix(in srgb, ${colour} 20%, var(--sheet))`
  const words = `Bay ${drive.bay}, ${suffixOf(drive.serial)}, ${kindWords(drive)}, ${drive.state}, ${mark?.words ?? 'unassigned'}`
  const isMarked = isHighlighted || (isChosen === true && mark === undefined)
  return (
    <g
      transform={`translate(${x + 8} ${y + 8})`}
      {...(canChoose ? choosing(isChosen === true, isRange => onToggle(drive.id, isRange)) : { role: 'img' })}
      aria-label={words}
    >
      <title>{words}</title>
      <rect
        width={width}
        height={height}
        rx={1}
        fill={mark?.isSpare === true ? spareFill : fill}
        stroke={isMarked ? 'var(--action)' : colour}
        strokeWidth={isHighlighted || isChosen === true ? 2 : 1}
        opacity={drive.state === 'failed' ? 0.6 : 1}
      />
      <Media drive={drive} place={place} isUpright={isUpright} />
      <Label drive={drive} place={place} isUpright={isUpright} isHatched={mark?.isSpare === true} />
      {drive.state !== 'fine' && (
        <text
          x={width / 2}
          y={isUpright ? height / 2 : height / 2 + 4}
          textAnchor="middle"
          style={{ fill: drive.state === 'failed' ? 'var(--now)' : 'var(--soon)', fontSize: 14 }}
        >
          {drive.state === 'failed' ? '▲' : '◐'}
        </text>
      )}
    </g>
  )
}

/** What makes a bay one that is chosen, by pointer and key; Shift chooses from the last one to this. */
const choosing = (isChosen: boolean, select: (isRange: boolean) => void) => ({
  role: 'checkbox',
  'aria-checked': isChosen,
  tabIndex: 0,
  className: 'cursor-pointer',
  onClick: (event: MouseEvent) => select(event.shiftKey),
  onKeyDown: (event: KeyboardEvent) => {
    if (event.key !== ' ' && event.key !== 'Enter') return
    if (event.key === 'Enter' && event.shiftKey) return
    event.preventDefault()
    select(event.shiftKey)
  },
})

type PartProps = Pick<BayProps, 'drive' | 'place' | 'isUpright'>

/** A ring is a platter, a bar is flash. */
const Media = ({ drive, place: { width, height }, isUpright }: PartProps) =>
  drive.media === 'HDD' ? (
    <circle
      cx={isUpright ? width / 2 : 15}
      cy={isUpright ? 16 : height / 2}
      r={7}
      fill="none"
      stroke="var(--faint)"
      opacity={0.75}
    />
  ) : (
    <line x1={5} x2={isUpright ? width - 5 : 24} y1={7} y2={7} stroke="var(--faint)" />
  )

const figure = { fontSize: 10, fill: 'var(--second)', fontFamily: 'var(--font-mono)' }
const suffix = { fontSize: 10.5, fontFamily: 'var(--font-mono)' }

/** The bay's number and the end of the serial number; over hatching on a ground of their own. */
function Label({ drive, place: { width, height }, isUpright, isHatched }: PartProps & { readonly isHatched: boolean }) {
  const ground = isUpright
    ? { x: width / 2 - 7, y: height - 42, width: 14, height: 36 }
    : { x: 28, y: 6, width: 80, height: height - 12 }
  const number = isUpright ? { x: width / 2, y: 24 } : { x: width - 8, y: height / 2 + 4 }
  const serial = isUpright
    ? { transform: `translate(${width / 2 + 4} ${height - 8}) rotate(-90)` }
    : { x: 32, y: height / 2 + 4 }
  return (
    <>
      {isHatched && <rect {...ground} fill="var(--sheet)" />}
      <text {...number} textAnchor={isUpright ? 'middle' : 'end'} style={figure}>
        {drive.bay}
      </text>
      <text {...serial} style={suffix}>
        {suffixOf(drive.serial)}
      </text>
    </>
  )
}
