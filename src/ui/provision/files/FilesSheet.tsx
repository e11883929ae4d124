import { Link } from '../../parts/Link'
import { ageDays, growthOf, mostComparedBytes, sizeBytes, type Sum } from '@/core/filetree'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import type { FileScan, FilesPage } from '@/core/views'
import { Layers, type Layer } from '../../drawings/layers'
import { Moment } from '../../parts/Moment'
import { FolderTree } from './FolderTree'

interface SheetProps {
  readonly page: FilesPage
  readonly scan: FileScan
}

const inWords = (bytes: number) => formatBytes(BigInt(Math.round(bytes)))
const yearDays = 365
const ageWords = (band: number) => {
  const [from, to] = [ageDays[band - 1], ageDays[band]]
  if (to === undefined) return `over ${Math.round((from ?? 0) / yearDays)} years`
  if (from === undefined) return `under ${to} days`
  if (to < yearDays) return `${from}–${to} days`
  return from < yearDays ? `${from} days–1 year` : `${from / yearDays}–${to / yearDays} years`
}
const sizeWords = (band: number) => {
  const [from, to] = [sizeBytes[band - 1], sizeBytes[band]]
  if (to === undefined) return `over ${inWords(from ?? 0)}`
  return from === undefined ? `under ${inWords(to)}` : `${inWords(from)}–${inWords(to)}`
}

/** What a walk has found: how old, of what kind and how large the files are, where they lie and whose they are. */
export function FilesSheet({ page, scan }: SheetProps) {
  const { report } = scan
  return (
    <>
      <h3>
        What they are <span>each layer opens to its files · hatched: not known</span>
      </h3>
      <WhatTheyAre page={page} scan={scan} />
      <div className="grid grid-cols-2 gap-x-6 max-md:grid-cols-1">
        <div>
          <h3>
            Where they lie <span>files, space and its part; folders open</span>
          </h3>
          <FolderTree scanId={scan.id} report={report} on={page.slice.text} />
        </div>
        <Bars
          title="Whose they are"
          about="by name where a directory has one"
          all={report.bytes}
          lines={report.owners.map(({ uid, ...sum }) => ({
            ...{ key: `owner:${uid}`, words: page.owners[`${uid}`] ?? `uid ${uid}`, sum },
          }))}
          on={page.slice.text}
        />
      </div>
      <Twins scan={scan} />
      <Growth page={page} scan={scan} />
    </>
  )
}

function WhatTheyAre({ page, scan: { report } }: SheetProps) {
  const layer = (key: string, words: string, sum: Sum, isHatched = false): Layer => ({
    ...{ key, words, isHatched },
    amount: inWords(sum.bytes),
    share: report.bytes === 0 ? 0 : sum.bytes / report.bytes,
    href: `?slice=${encodeURIComponent(key)}`,
    isOn: page.slice.text === key,
  })
  return (
    <div className="grid grid-cols-3 gap-x-6 max-xl:grid-cols-2 max-md:grid-cols-1">
      <Layers
        label="Last written, the latest above"
        layers={report.ages.map((sum, band) => layer(`age:${band}`, ageWords(band), sum))}
      />
      <Layers
        label="By their first bytes"
        layers={report.kinds.map(sum =>
          layer(`kind:${sum.kind ?? 'unknown'}`, sum.kind ?? 'not known', sum, sum.kind === null),
        )}
      />
      <Layers
        label="By size, the largest below"
        layers={report.sizes.map((sum, band) => layer(`size:${band}`, sizeWords(band), sum))}
      />
    </div>
  )
}

interface BarsProps {
  readonly title: string
  readonly about: string
  readonly all: number
  readonly lines: readonly { readonly key: string; readonly words: string; readonly sum: Sum }[]
  readonly on: string
}

const shownLines = 8

function Bars({ title, about, all, lines, on }: BarsProps) {
  const most = Math.max(1, ...lines.map(({ sum }) => sum.bytes))
  return (
    <div>
      <h3>
        {title} <span>{about}</span>
      </h3>
      {lines.slice(0, shownLines).map(({ key, words, sum }) => (
        <Link
          key={key}
          href={`?slice=${encodeURIComponent(key)}`}
          scroll={false}
          aria-current={on === key ? 'true' : undefined}
          className={`block border-b border-rule-fine py-[4px] no-underline ${on === key ? 'text-action' : ''}`}
        >
          <span className="flex justify-between gap-2">
            <span className="truncate font-semibold">{words}</span>
            <span className="whitespace-nowrap">
              <span className="mono">{inWords(sum.bytes)}</span>{' '}
              <span className="mono inline-block w-[52px] text-right text-second">
                {all === 0 ? '' : `${((100 * sum.bytes) / all).toFixed(1)} %`}
              </span>
            </span>
          </span>
          <span className="block h-[3px] bg-ink" style={{ width: `${(100 * sum.bytes) / most}%` }} />
        </Link>
      ))}
      {lines.length > shownLines && (
        <p className="mt-1 mb-0 text-second">
          and {countWords(lines.length - shownLines, 'other', 'others')} with{' '}
          {inWords(lines.slice(shownLines).reduce((sum, each) => sum + each.sum.bytes, 0))}
        </p>
      )}
    </div>
  )
}

const shownTwins = 6

function Twins({ scan: { twins, report } }: { readonly scan: FileScan }) {
  const bySize = report.sameSize.filter(({ bytes }) => bytes > mostComparedBytes)
  if (twins.length + bySize.length === 0) return null
  const spare = twins.reduce((sum, { bytes, paths }) => sum + bytes * (paths.length - 1), 0)
  return (
    <>
      <h3>
        There more than once <span>alike by size, then by sum · {inWords(spare)} are held besides one of each</span>
      </h3>
      <table className="plain rows">
        <tbody>
          {twins.slice(0, shownTwins).map(({ sha256, bytes, paths }) => (
            <tr key={`${sha256}${paths[0] ?? ''}`}>
              <td className="w-[90px] whitespace-nowrap">
                <Link className="textlink mono" href={`?slice=twins:${bytes}`} scroll={false}>
                  {paths.length} × {inWords(bytes)}
                </Link>
              </td>
              <td className="mono break-words text-second">{paths.slice(0, 3).join('  =  ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {bySize.length > 0 && (
        <p className="mt-1 mb-0 text-second">
          {countAtStart(bySize.length, 'size occurs', 'sizes occur')} more than once among files above{' '}
          {inWords(mostComparedBytes)}, which are not read: whether they are alike is not known.
        </p>
      )}
    </>
  )
}

const shownGrowth = 6

function Growth({ page: { before }, scan }: SheetProps) {
  if (before === null) return null
  const grown = growthOf(before.report, scan.report)
  return (
    <>
      <h3>
        Since the walk before <span>by folder, what has changed most first</span>
      </h3>
      {grown.length === 0 && (
        <p className="mt-0 text-second">
          Nothing has grown or shrunk since <Moment at={before.at} />.
        </p>
      )}
      {grown.slice(0, shownGrowth).map(({ key, before: was, after: is }) => (
        <div key={key} className="flex justify-between border-b border-rule-fine py-[4px]">
          <span className="font-semibold">{key === '' ? 'at the root itself' : key}</span>
          <span className="mono">
            {is.bytes < was.bytes ? '−' : '+'}
            {inWords(Math.abs(is.bytes - was.bytes))}, {is.files < was.files ? '−' : '+'}
            {Math.abs(is.files - was.files).toLocaleString('en')} files
          </span>
        </div>
      ))}
      {grown.length > 0 && (
        <p>
          <Link className="textlink" href={`?slice=since:${Date.parse(before.at)}`} scroll={false}>
            Files that were written since then
          </Link>
        </p>
      )}
    </>
  )
}
