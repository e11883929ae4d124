'use client'
import { useQueries, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { ask } from '../api'

/** A page of a list at the server, and how many rows there are in all. */
export interface ServerPage<Row> {
  readonly total: number
  readonly items: readonly Row[]
  /** The names of what the rows refer to, by id. */
  readonly names?: Readonly<Record<string, string>>
}

const pageRows = 200

export type ServerPages<Row> = ReturnType<typeof useServerPages<Row>>

async function readPage<Row>(
  path: string,
  question: string,
  page: number,
  signal: AbortSignal,
): Promise<ServerPage<Row>> {
  const query = `${question === '' ? '' : `${question}&`}offset=${page * pageRows}&limit=${pageRows}`
  const answer = await ask<ServerPage<Row>>('GET', `${path}?${query}`, undefined, signal)
  if (!answer.ok) throw new Error(answer.refusal.what, { cause: answer.refusal })
  return answer.value
}

/**
 * The pages around what is in sight.
 * @param first the first page, as the server has drawn it
 * @param question what the list is asked for, as a query without offset and limit
 */
export function useServerPages<Row>(path: string, question: string, first: ServerPage<Row>) {
  const [sight, setSight] = useState({ from: 0, to: 0 })
  const client = useQueryClient()
  // The server sends another first page when something has changed: what else is in sight may have changed with it.
  const drawn = useRef(first)
  useEffect(() => {
    if (drawn.current === first) return
    drawn.current = first
    void client.invalidateQueries({ queryKey: [path] })
  }, [client, first, path])
  const pages = useMemo(() => {
    const last = Math.max(0, Math.ceil(first.total / pageRows) - 1)
    const from = Math.max(1, Math.floor((sight.from - pageRows / 2) / pageRows))
    const to = Math.min(last, Math.floor((sight.to + pageRows / 2) / pageRows))
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => from + index)
  }, [sight, first.total])
  const read = useQueries({
    queries: pages.map(page => ({
      queryKey: [path, question, page],
      queryFn: ({ signal }: { readonly signal: AbortSignal }) => readPage<Row>(path, question, page, signal),
    })),
  })
  const byPage = new Map(pages.map((page, index) => [page, read[index]?.data]))
  byPage.set(0, first)
  return {
    total: first.total,
    rowAt: (index: number): Row | undefined => byPage.get(Math.floor(index / pageRows))?.items[index % pageRows],
    nameOf: (id: string): string | undefined => {
      for (const page of byPage.values()) if (page?.names?.[id] !== undefined) return page.names[id]
      return undefined
    },
    look: (from: number, to: number) => setSight(seen => (seen.from === from && seen.to === to ? seen : { from, to })),
  }
}

/** All rows of a list, page by page, for saving or choosing them. @returns undefined where the server does not answer */
export async function readAll<Row>(path: string, question: string): Promise<ServerPage<Row> | undefined> {
  const items: Row[] = []
  let names: Readonly<Record<string, string>> = {}
  for (let total = 1; items.length < total; ) {
    const page = await readSome<Row>(path, question, items.length)
    if (page === undefined) return undefined
    total = page.items.length === 0 ? 0 : page.total
    items.push(...page.items)
    names = { ...names, ...page.names }
  }
  return { total: items.length, items, names }
}

/** The rows from one to another, both included. @returns undefined where the server does not answer */
export async function readRange<Row>(
  path: string,
  question: string,
  from: number,
  to: number,
): Promise<readonly Row[] | undefined> {
  const items: Row[] = []
  while (items.length <= to - from) {
    const page = await readSome<Row>(path, question, from + items.length)
    if (page === undefined) return undefined
    if (page.items.length === 0) break
    items.push(...page.items)
  }
  return items.slice(0, to - from + 1)
}

async function readSome<Row>(path: string, question: string, offset: number): Promise<ServerPage<Row> | undefined> {
  const query = `${question === '' ? '' : `${question}&`}offset=${offset}&limit=500`
  const answer = await ask<ServerPage<Row>>('GET', `${path}?${query}`)
  return answer.ok ? answer.value : undefined
}
