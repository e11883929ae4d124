'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import Link from 'next/link'
import { usePathname, useRouter, useSearchParams } from 'next/navigation'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { VolumeLine, VolumeSort } from '@/core/views'
import { ask } from '../api'
import { Bytes } from '../parts/Bytes'
import { State } from '../parts/State'

interface Page {
  readonly total: number
  readonly lines: readonly VolumeLine[]
}

interface VolumeTableProps {
  readonly first: Page
  /** What the list was asked for, as a query without offset and limit. */
  readonly question: string
  readonly selected: string | undefined
}

const rowPixels = 29
const pageLines = 200
const mostPages = 30

/** Volumes in virtual rows, read from the server in pages around what is in sight; pages far away are forgotten. */
export function VolumeTable({ first, question, selected }: VolumeTableProps) {
  const scroller = useRef<HTMLDivElement>(null)
  const { lines, total } = usePages(first, question, scroller)
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowPixels,
    overscan: 30,
  })
  const items = virtual.getVirtualItems()
  const from = items[0]?.index ?? 0
  const to = items.at(-1)?.index ?? 0
  const { want } = lines
  useEffect(() => want(from, to), [want, from, to])
  const columns =
    'grid grid-cols-[minmax(120px,2.1fr)_minmax(90px,1.3fr)_minmax(90px,1.5fr)_84px_84px_52px_88px] gap-x-[10px]'
  return (
    <div role="table" aria-label="Volumes" aria-rowcount={total + 1} className="min-w-[640px]">
      <div role="row" className={`${columns} border-b border-rule text-sm text-faint`}>
        <Head sort="name" words="Volume" />
        <span role="columnheader">Pool</span>
        <span role="columnheader">Seen by</span>
        <Head sort="size" words="Size" isNumber />
        <Head sort="written" words="Written" isNumber />
        <span role="columnheader">Space</span>
        <span role="columnheader">State</span>
      </div>
      <div
        ref={scroller}
        role="rowgroup"
        className="overflow-auto"
        style={{ height: `min(${Math.max(1, total) * rowPixels + 2}px, calc(100vh - 270px))` }}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {items.map(item => (
            <div
              key={item.key}
              role="row"
              aria-rowindex={item.index + 2}
              className={`${columns} absolute inset-x-0 items-center border-b border-rule-fine`}
              style={{
                height: rowPixels,
                transform: `translateY(${item.start}px)`,
                ...(lines.at(item.index)?.id === selected && selected !== undefined
                  ? { background: 'var(--action-wash)', boxShadow: 'inset 2px 0 0 var(--action)' }
                  : {}),
              }}
            >
              <Row line={lines.at(item.index)} />
            </div>
          ))}
        </div>
      </div>
    </div>
  )
}

function Row({ line }: { readonly line: VolumeLine | undefined }) {
  const href = useHref()
  if (line === undefined)
    return <span role="cell" className="col-span-7 h-3 rounded-sm bg-rule-fine" aria-label="Loading" />
  return (
    <>
      <span role="cell" className="min-w-0 pl-2">
        <Link
          data-row
          href={href({ sel: line.id, draft: null, change: null })}
          scroll={false}
          prefetch={false}
          className="block truncate font-semibold no-underline"
          title={`${line.name}, WWN ${line.naa}`}
        >
          {line.name}
        </Link>
      </span>
      <span role="cell" className="truncate" title={`${line.poolName} on ${line.systemName}`}>
        {line.poolName}
      </span>
      <span role="cell" className="truncate" title={line.groupNames.join(', ')}>
        {line.groupNames.length === 0 ? <span className="text-faint">nobody</span> : line.groupNames.join(', ')}
      </span>
      <span role="cell" className="text-right">
        <Bytes bytes={line.sizeBytes} />
      </span>
      <span role="cell" className="text-right">
        <Bytes bytes={line.writtenBytes} />
      </span>
      <span role="cell">{line.isThin ? 'thin' : 'thick'}</span>
      <span role="cell">
        {line.missingSince !== null ? (
          <State gravity="now">missing</State>
        ) : line.state === 'in use' ? (
          <State gravity="fine">in use</State>
        ) : (
          <State gravity="soon">holding</State>
        )}
      </span>
    </>
  )
}

/** The page's address with some of its query changed. */
function useHref() {
  const path = usePathname()
  const query = useSearchParams()
  return (changes: Readonly<Record<string, string | null>>) => {
    const next = new URLSearchParams(query)
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) next.delete(name)
      else next.set(name, value)
    }
    return `${path}?${next}`
  }
}

function Head({
  sort,
  words,
  isNumber = false,
}: {
  readonly sort: VolumeSort
  readonly words: string
  readonly isNumber?: boolean
}) {
  const router = useRouter()
  const query = useSearchParams()
  const href = useHref()
  const isOn = (query.get('sort') ?? 'name') === sort
  const isDescending = query.get('descending') === 'true'
  return (
    <span
      role="columnheader"
      aria-sort={isOn ? (isDescending ? 'descending' : 'ascending') : 'none'}
      className={isNumber ? 'text-right' : 'pl-2'}
    >
      <button
        type="button"
        className="border-0 bg-transparent p-0 hover:text-ink"
        onClick={() =>
          router.push(href({ sort, descending: isOn && !isDescending ? 'true' : null }), { scroll: false })
        }
      >
        {words}
        {isOn ? (isDescending ? ' ↓' : ' ↑') : ''}
      </button>
    </span>
  )
}

interface Lines {
  readonly at: (index: number) => VolumeLine | undefined
  readonly want: (from: number, to: number) => void
}

/** Keeps the pages around what is in sight. A new first page from the server replaces what it covers. */
function usePages(
  first: Page,
  question: string,
  scroller: React.RefObject<HTMLDivElement | null>,
): { readonly lines: Lines; readonly total: number } {
  const [state, setState] = useState({ question, first, pages: new Map([[0, first.lines]]), total: first.total })
  const asked = useRef(new Set<number>())
  if (state.first !== first || state.question !== question) {
    const isOther = state.question !== question
    setState({
      question,
      first,
      total: first.total,
      pages: isOther ? new Map([[0, first.lines]]) : new Map([...state.pages, [0, first.lines]]),
    })
  }
  useEffect(() => {
    asked.current.clear()
    scroller.current?.scrollTo({ top: 0 })
  }, [question, scroller])
  // What was read may have changed with the first page: pages in sight are asked for again.
  useEffect(() => asked.current.clear(), [first])
  const want = useCallback(
    (from: number, to: number) => {
      const firstPage = Math.max(0, Math.floor((from - pageLines) / pageLines))
      const lastPage = Math.floor((to + pageLines) / pageLines)
      for (let page = firstPage; page <= lastPage; page += 1) {
        if (page === 0 || asked.current.has(page)) continue
        asked.current.add(page)
        void ask<Page>('GET', `/volumes?${question}&offset=${page * pageLines}&limit=${pageLines}`).then(answer => {
          if (!answer.ok) return asked.current.delete(page)
          setState(was => {
            if (was.question !== question) return was
            const pages = new Map([...was.pages, [page, answer.value.lines] as const])
            const far = [...pages.keys()]
              .filter(each => each !== 0)
              .sort((a, b) => Math.abs(b - page) - Math.abs(a - page))
            for (const each of far.slice(0, Math.max(0, pages.size - mostPages))) {
              pages.delete(each)
              asked.current.delete(each)
            }
            return { ...was, pages, total: answer.value.total }
          })
          return true
        })
      }
    },
    [question],
  )
  const at = (index: number) => state.pages.get(Math.floor(index / pageLines))?.[index % pageLines]
  return { lines: { at, want }, total: state.total }
}
