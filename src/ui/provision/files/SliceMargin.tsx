'use client'
import { formatBytes } from '@/core/units'
import type { FilesPage } from '@/core/views'
import { Margin } from '../../frame'
import { csvText, save } from '../../table'

interface SliceMarginProps {
  readonly page: FilesPage
  /** What the part is, in words. */
  readonly words: string
}

/** The files of the part that is opened, the largest first. */
export function SliceMargin({ page: { share, slice, owners }, words }: SliceMarginProps) {
  const lines = () => [
    ['path', 'bytes', 'uid', 'gid', 'last written', 'kind by its first bytes'],
    ...slice.largest.map(({ path, bytes, uid, gid, modifiedAt, kind }) => [
      ...[path, `${bytes}`, `${uid}`, `${gid}`, new Date(modifiedAt).toISOString(), kind ?? ''],
    ]),
  ]
  return (
    <Margin
      foot={
        <button
          type="button"
          className="button quiet"
          disabled={slice.largest.length === 0}
          onClick={() => save(`${share.name}-files.csv`, csvText(lines()))}
        >
          CSV
        </button>
      }
    >
      <h2>{words}</h2>
      <p className="sentence mt-0">
        <b>
          {slice.files.toLocaleString('en')} {slice.files === 1 ? 'file' : 'files'},{' '}
          {formatBytes(BigInt(Math.round(slice.bytes)))}.
        </b>{' '}
        {slice.files > slice.largest.length && `The ${slice.largest.length} largest are here.`}
      </p>
      <ol className="m-0 list-none p-0">
        {slice.largest.map(each => (
          <FileLine key={each.path} file={each} owner={owners[`${each.uid}`] ?? `uid ${each.uid}`} />
        ))}
      </ol>
      {slice.files === 0 && <p className="text-second">No file is so.</p>}
    </Margin>
  )
}

interface FileLineProps {
  readonly file: FilesPage['slice']['largest'][number]
  readonly owner: string
}

const FileLine = ({ file: { path, bytes, modifiedAt, kind }, owner }: FileLineProps) => {
  const cut = path.lastIndexOf('/') + 1
  return (
    <li className="border-b border-rule-fine py-[5px]">
      <span className="flex justify-between gap-3">
        <b className="min-w-0 break-words">{path.slice(cut)}</b>
        <span className="mono whitespace-nowrap">{formatBytes(BigInt(bytes))}</span>
      </span>
      <span className="flex justify-between gap-3 text-sm text-second">
        <span className="min-w-0 break-words">
          {path.slice(0, cut)} · {owner}
          {kind === undefined ? '' : ` · ${kind}`}
        </span>
        <span className="mono whitespace-nowrap">{new Date(modifiedAt).toISOString().slice(0, 10)}</span>
      </span>
    </li>
  )
}
