'use client'
import { useRouter } from 'next/navigation'
import { useMemo } from 'react'
import type { Drive, Enclosure } from '@/core/estate'
import { usePoolChoice } from '../../drafts/PoolChoice'
import { BayField, groupsOf, type FieldMark } from '../bayField'
import type { BayMark } from './Bays'

interface BaysTogetherProps {
  readonly systemId: string
  readonly enclosures: readonly Enclosure[]
  readonly drives: readonly Drive[]
  readonly marks: ReadonlyMap<string, BayMark>
  readonly highlighted: string | undefined
}

/** The bays of many enclosures in one drawing: chosen by dragging over them as well. */
export function BaysTogether({ systemId, enclosures, drives, marks, highlighted }: BaysTogetherProps) {
  const router = useRouter()
  const { isOpen, chosen, choose } = usePoolChoice()
  const chosenSet = useMemo(() => new Set(chosen), [chosen])
  const groups = useMemo(() => groupsOf(enclosures, drives, each => each.name, countWords), [enclosures, drives])
  const lettered = useMemo(() => withLetters(marks), [marks])
  return (
    <>
      <h3>
        Bays{' '}
        <span>
          {isOpen ? `${chosen.length} chosen` : `${drives.length} drives in ${enclosures.length} enclosures, s spare`}
        </span>
      </h3>
      <BayField
        label="Bays of all enclosures"
        groups={groups}
        marks={lettered}
        chosen={isOpen ? chosenSet : noneChosen}
        highlighted={highlighted}
        canChoose={isOpen ? isFree : undefined}
        onChoose={(ids, isAdding) =>
          choose(isAdding ? [...new Set([...chosen, ...ids])] : chosen.filter(id => !ids.includes(id)))
        }
        onOpen={drive => router.push(`/build/systems/${systemId}?drive=${drive.id}`, { scroll: false })}
      />
    </>
  )
}

const noneChosen: ReadonlySet<string> = new Set()
const isFree = (drive: Drive) => drive.role === 'unassigned' && drive.state === 'fine'
const countWords = (own: readonly Drive[], { bayCount }: Enclosure) => `${own.length} of ${bayCount}`

const withLetters = (marks: ReadonlyMap<string, BayMark>): ReadonlyMap<string, FieldMark> =>
  new Map([...marks].map(([id, { words, colour, isSpare }]) => [id, { words, colour, letter: isSpare ? 's' : '' }]))
