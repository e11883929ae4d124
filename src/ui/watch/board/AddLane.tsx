'use client'
import { useQuery } from '@tanstack/react-query'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useId, useState, useTransition, type MouseEvent } from 'react'
import { boardQuery, type Board, type LaneAsked } from '@/core/board'
import { metricNames, metrics, type Metric, type MetricName } from '@/core/metrics'
import type { Hit } from '@/core/views'
import { ask } from '../../api'
import { metricWords } from './seriesWords'

const mostHits = 6
const leastLetters = 2

/** Metrics that pools or volumes have: their own fields, and what systems measure of both. */
const metricsOf = (kind: 'pools' | 'volumes'): readonly MetricName[] =>
  metricNames.filter(metric => {
    const { of } = metrics[metric] as Metric
    return Object.keys(of).length === 0 || of[kind] !== undefined
  })

const kinds: Readonly<Record<string, 'pools' | 'volumes'>> = { pool: 'pools', volume: 'volumes' }

/** Puts another series on the board: found by the name of its pool or volume. */
export function AddLane({ board }: { readonly board: Board }) {
  const [text, put] = useState('')
  const listId = useId()
  const router = useRouter()
  // Until what was chosen stands on the board nothing else is offered: it would rest on the board without it.
  const [isPutting, start] = useTransition()
  const putOn = (event: MouseEvent, href: string) => {
    event.preventDefault()
    put('')
    start(() => router.push(href, { scroll: false }))
  }
  const wanted = text.trim()
  const { data: hits = [] } = useQuery({
    queryKey: ['board', wanted],
    enabled: wanted.length >= leastLetters,
    queryFn: async ({ signal }) => {
      const answer = await ask<{ readonly items: readonly Hit[] }>(
        'GET',
        `/search?text=${encodeURIComponent(wanted)}`,
        undefined,
        signal,
      )
      return answer.ok ? answer.value.items.filter(({ kind }) => kinds[kind] !== undefined).slice(0, mostHits) : []
    },
  })
  const hrefOf = (metric: MetricName, objectId: string) => {
    const lane: LaneAsked = { metric, objectId, over: null, shiftDays: 0, isUsualShown: false }
    return `?${boardQuery({ ...board, lanes: [...board.lanes, lane] })}`
  }
  return (
    <div className="mt-3 border border-dashed border-rule px-3 py-2">
      <label className="label" htmlFor={listId}>
        Put another series on it
      </label>
      <input
        id={listId}
        className="field max-w-[260px]"
        placeholder="name of a pool or volume"
        value={text}
        disabled={isPutting}
        autoComplete="off"
        spellCheck={false}
        onChange={event => put(event.target.value)}
      />
      {wanted.length >= leastLetters && (
        <ul className="m-0 mt-2 list-none p-0">
          {hits.map(({ id, kind, name }) => (
            <li key={id} className="flex flex-wrap gap-x-4 border-t border-rule-fine py-[5px]">
              <span className="min-w-[150px] font-semibold">{name}</span>
              {metricsOf(kinds[kind] ?? 'volumes').map(metric => (
                <Link
                  key={metric}
                  className="textlink"
                  href={hrefOf(metric, id)}
                  scroll={false}
                  onClick={event => putOn(event, hrefOf(metric, id))}
                >
                  {metricWords(metric)}
                </Link>
              ))}
            </li>
          ))}
          {hits.length === 0 && <li className="py-1 text-second">No pool or volume is called so.</li>}
        </ul>
      )}
    </div>
  )
}
