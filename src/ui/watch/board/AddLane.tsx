'use client'
import { useQuery } from '@tanstack/react-query'
import { useDroppable } from '@dnd-kit/core'
import { useId, useState } from 'react'
import { isFull, mostLanes } from '@/core/board'
import { kindOf } from '@/core/estate'
import { isMeasuredOf, measuredKinds, metricNames, type MeasuredKind, type MetricName } from '@/core/metrics'
import type { Hit } from '@/core/views'
import { ask } from '../../api'
import { boardEnd, useBoard } from './OneBoard'
import { SeriesLink } from './SeriesLink'
import { metricWords } from './seriesWords'

const mostHits = 6
const leastLetters = 2

/** By the word that is found. */
const kinds: Readonly<Record<string, MeasuredKind>> = Object.fromEntries(
  measuredKinds.map(kind => [kindOf(kind).words.one, kind]),
)

const metricsOf = (kind: MeasuredKind): readonly MetricName[] =>
  metricNames.filter(metric => isMeasuredOf(kind, metric))

/** Puts another series on the board: found by the name of what it is of, or the serial of its drive. */
export function AddLane() {
  const { board } = useBoard()
  const [text, put] = useState('')
  const listId = useId()
  const { setNodeRef, isOver } = useDroppable({ id: boardEnd })
  const wanted = text.trim()
  const { data: hits = [] } = useQuery({
    queryKey: ['board', wanted],
    enabled: wanted.length >= leastLetters,
    queryFn: ({ signal }) => found(wanted, signal),
  })
  return (
    <div ref={setNodeRef} className={`mt-3 border border-dashed px-3 py-2 ${isOver ? 'border-action' : 'border-rule'}`}>
      <label className="label" htmlFor={listId}>
        Put another series on it
      </label>
      <input
        id={listId}
        className="field max-w-[320px]"
        placeholder="a name, or the serial of a drive"
        value={text}
        disabled={isFull(board)}
        autoComplete="off"
        spellCheck={false}
        onChange={event => put(event.target.value)}
      />
      {isFull(board) && (
        <p className="mt-1 mb-0 text-second">A board takes {mostLanes} lanes: take one off before another is put on.</p>
      )}
      {wanted.length >= leastLetters && (
        <ul className="m-0 mt-2 list-none p-0">
          {hits.map(hit => (
            <HitLine key={hit.id} hit={hit} onPut={() => put('')} />
          ))}
          {hits.length === 0 && <li className="py-1 text-second">Nothing that is measured is called so.</li>}
        </ul>
      )}
    </div>
  )
}

async function found(wanted: string, signal: AbortSignal): Promise<readonly Hit[]> {
  const answer = await ask<{ readonly items: readonly Hit[] }>(
    'GET',
    `/search?text=${encodeURIComponent(wanted)}`,
    undefined,
    signal,
  )
  return answer.ok ? answer.value.items.filter(({ kind }) => kinds[kind] !== undefined).slice(0, mostHits) : []
}

/** What was found, with each series that it has. */
const HitLine = ({ hit: { id, kind, name }, onPut }: { readonly hit: Hit; readonly onPut: () => void }) => (
  <li className="flex flex-wrap gap-x-4 border-t border-rule-fine py-[5px]">
    <span className="min-w-[150px] font-semibold">{name}</span>
    {metricsOf(kinds[kind] ?? 'volumes').map(metric => (
      <SeriesLink
        key={metric}
        series={{ metric, objectId: id }}
        called={`${name}, ${metricWords(metric)}`}
        onPut={onPut}
      >
        {metricWords(metric)}
      </SeriesLink>
    ))}
  </li>
)
