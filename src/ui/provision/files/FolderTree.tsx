'use client'
import { useInfiniteQuery } from '@tanstack/react-query'
import { ChevronRight } from 'lucide-react'
import { Link } from '../../parts/Link'
import { useState, type KeyboardEvent } from 'react'
import type { FileReport } from '@/core/filetree'
import { formatBytes } from '@/core/units'
import { ask } from '../../api'
import { ServerLists } from '../../table'

interface Folder {
  readonly id: number
  readonly name: string
  readonly files: number
  readonly bytes: number
  readonly folders: number
  readonly newestAt: string | null
}
interface Page {
  readonly total: number
  readonly items: readonly Folder[]
}

interface FolderTreeProps {
  readonly scanId: string
  readonly report: Pick<FileReport, 'bytes' | 'folders'>
  /** The part that is opened beside it, as the address says it. */
  readonly on: string
}

const atOnce = 60
const indentPixels = 16

/** Folders below folders, the largest first; each is read when it is opened, so that a million of them cost nothing. */
export const FolderTree = (props: FolderTreeProps) => {
  const own = props.report.folders.find(({ path }) => path === '')
  return (
    <ServerLists>
      <Level {...props} parent={{ id: 0, path: '' }} depth={0} label="Folders" />
      {own !== undefined && (
        <p className="m-0 flex justify-between gap-4 py-[4px] pl-5">
          <Link className="text-second no-underline" href="?slice=folder%3A" scroll={false}>
            at the root itself
          </Link>
          <span className="mono">{formatBytes(BigInt(Math.round(own.bytes)))}</span>
        </p>
      )}
    </ServerLists>
  )
}

interface LevelProps extends FolderTreeProps {
  readonly parent: { readonly id: number; readonly path: string }
  readonly depth: number
  readonly label: string
}

/** The folders in one, as far as they were asked for. */
const useFolders = (scanId: string, parentId: number) =>
  useInfiniteQuery({
    queryKey: ['folders', scanId, parentId],
    initialPageParam: 0,
    queryFn: async ({ pageParam, signal }) => {
      const query = `parent=${parentId}&offset=${pageParam}&limit=${atOnce}`
      const answer = await ask<Page>('GET', `/file-scans/${scanId}/folders?${query}`, undefined, signal)
      if (!answer.ok) throw new Error(answer.refusal.what, { cause: answer.refusal })
      return answer.value
    },
    getNextPageParam: ({ total }, pages) => {
      const read = pages.reduce((sum, { items }) => sum + items.length, 0)
      return read < total ? read : undefined
    },
  })

function Level({ parent, label, ...rest }: LevelProps) {
  const { scanId, depth } = rest
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useFolders(scanId, parent.id)
  const [first] = data?.pages ?? []
  const folders = data?.pages.flatMap(({ items }) => items) ?? []
  const indent = { paddingLeft: depth * indentPixels + 20 }
  if (error !== null)
    return (
      <p className="my-1 text-now" style={indent} role="status">
        {error.message}
      </p>
    )
  if (first !== undefined && folders.length === 0)
    return (
      <p className="mt-0 text-second">
        {rest.report.folders.some(({ path }) => path !== '')
          ? 'The walk was made before folders were summed up: walk through them again.'
          : 'It has no folders.'}
      </p>
    )
  return (
    <ul className="m-0 list-none p-0" aria-label={label} aria-busy={isFetching}>
      {folders.map(folder => (
        <Branch key={folder.id} {...rest} folder={folder} path={`${parent.path}/${folder.name}`} />
      ))}
      {hasNextPage && (
        <li style={indent}>
          <button
            type="button"
            className="textlink border-0 bg-transparent p-0 py-[4px]"
            onClick={() => void fetchNextPage()}
          >
            show the next of {((first?.total ?? 0) - folders.length).toLocaleString('en')} smaller
          </button>
        </li>
      )}
    </ul>
  )
}

interface BranchProps extends FolderTreeProps {
  readonly folder: Folder
  readonly path: string
  readonly depth: number
}

/** One folder, with what lies in it once it is opened. */
function Branch({ folder, path, ...rest }: BranchProps) {
  const { report, depth } = rest
  const [isOpen, open] = useState(false)
  const part = report.bytes === 0 ? 0 : folder.bytes / report.bytes
  return (
    <li>
      <div className="relative grid grid-cols-[minmax(0,1fr)_auto_auto_auto] items-baseline gap-x-2 border-b border-rule-fine py-[4px]">
        <span className="flex min-w-0 items-baseline gap-1" style={{ paddingLeft: depth * indentPixels }}>
          <Opener folder={folder} isOpen={isOpen} open={open} />
          <FolderName folder={folder} path={path} on={rest.on} />
        </span>
        <span className="mono w-[62px] text-right text-second max-xl:hidden" title="files below it">
          {folder.files.toLocaleString('en')}
        </span>
        <span className="mono w-[76px] text-right whitespace-nowrap">
          {formatBytes(BigInt(Math.round(folder.bytes)))}
        </span>
        <span className="mono w-[54px] text-right text-second">{(part * 100).toFixed(1)} %</span>
        <span
          className="absolute bottom-[-1px] left-0 h-[2px] bg-ink"
          style={{ width: `${part * 100}%` }}
          aria-hidden
        />
      </div>
      {isOpen && <Level {...rest} parent={{ id: folder.id, path }} depth={depth + 1} label={`In ${path}`} />}
    </li>
  )
}

interface OpenerProps {
  readonly folder: Folder
  readonly isOpen: boolean
  readonly open: (isOpen: boolean) => void
}

/** Opens and closes a folder, by pointer, by Space, or by the arrows to the right and left. */
function Opener({ folder: { name, folders }, isOpen, open }: OpenerProps) {
  if (folders === 0) return <span className="inline-block w-[15px] shrink-0" />
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft') return
    event.preventDefault()
    open(event.key === 'ArrowRight')
  }
  return (
    <button
      type="button"
      className="w-[15px] shrink-0 self-center border-0 bg-transparent p-0 text-second"
      aria-expanded={isOpen}
      aria-label={`What lies in ${name}`}
      onClick={() => open(!isOpen)}
      onKeyDown={key}
    >
      <ChevronRight aria-hidden size={13} className={isOpen ? 'rotate-90' : ''} />
    </button>
  )
}

/** Leads to its largest files. */
function FolderName({ folder, path, on }: Pick<BranchProps, 'folder' | 'path' | 'on'>) {
  const slice = `folder:${path}`
  return (
    <Link
      href={`?slice=${encodeURIComponent(slice)}`}
      scroll={false}
      aria-current={on === slice ? 'true' : undefined}
      className={`truncate font-semibold no-underline ${on === slice ? 'text-action' : ''}`}
      title={path}
    >
      {folder.name}
    </Link>
  )
}
