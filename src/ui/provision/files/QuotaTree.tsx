import { quotaTree, readQuotas, type QuotaNode } from '@/core/filetree'
import type { Share } from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { Bytes } from '../../parts/Bytes'
import { Hatch } from '../../parts/Hatch'
import { State } from '../../parts/State'

const [width, height] = [240, 18]
/** Of siblings so many are shown, the fullest first. */
const shownOfSiblings = 12
const dayMilliseconds = 86_400_000

interface QuotaTreeProps {
  readonly share: Share
  /** By the estate's clock (milliseconds since 1970). */
  readonly now: number
}

const treeOf = ({ share, now }: QuotaTreeProps) =>
  quotaTree(
    share,
    readQuotas(share.quotas),
    share.quotaUsage.map(each => ({ ...each, usedBytes: BigInt(each.usedBytes) })),
    now,
  )

/** Directories under quotas, each where it lies in its share: what is written, what is left, and whose limit stops it first. */
export function QuotaTree(props: QuotaTreeProps) {
  const nodes = treeOf(props)
  if (nodes.length < 2) return null
  const { shown, hidden } = fewOfEach(nodes)
  const most = nodes.reduce((sum, each) => Math.max(sum, endOf(each)), 1)
  return (
    <>
      <h3>
        Directories{' '}
        <span>each bar begins where its sibling ends · hatched: left to write · dashed: soft · line: hard</span>
      </h3>
      <p className="mt-0">{stopWords(nodes)}</p>
      <table className="plain rows">
        <thead>
          <tr>
            <th>Directory</th>
            <th className="w-[30%]"> </th>
            <th className="number">Used</th>
            <th className="number">Soft</th>
            <th className="number">Hard</th>
            <th className="number">Left</th>
            <th>Stopped by</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(node => (
            <Line key={node.path} node={node} most={most} {...props} />
          ))}
          {hidden > 0 && (
            <tr>
              <td colSpan={7} className="text-second">
                and {countWords(hidden, 'further directory', 'further directories')} with less in them
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}

const nameOf = ({ path, name }: Pick<QuotaNode, 'path' | 'name'>, share: Share) => (path === '/' ? share.name : name)
const lastPart = (path: string) => path.slice(path.lastIndexOf('/') + 1)

function Line({ node, most, share, now }: QuotaTreeProps & { readonly node: QuotaNode; readonly most: number }) {
  const { depth, usedBytes, softBytes, hardBytes, leftBytes, stoppedBy } = node
  return (
    <tr>
      <td className={depth < 2 ? 'font-semibold' : undefined} style={{ paddingLeft: depth * 12 }}>
        {nameOf(node, share)}
      </td>
      <td>
        <Bar node={node} most={most} />
      </td>
      <td data-head="Used" className="number">
        <Bytes bytes={usedBytes} />
      </td>
      <td data-head="Soft" className="number">
        {softBytes === null ? '–' : formatBytes(softBytes)}
      </td>
      <td data-head="Hard" className="number">
        {hardBytes === null ? '–' : formatBytes(hardBytes)}
      </td>
      <td data-head="Left" className="number font-semibold">
        {leftBytes === null ? 'all' : formatBytes(leftBytes)}
      </td>
      <td data-head="Stopped by" className="text-second">
        {stoppedBy === null
          ? 'nothing'
          : stoppedBy === node.path
            ? 'itself'
            : stoppedBy === '/'
              ? share.name
              : lastPart(stoppedBy)}
        <Grace node={node} now={now} />
      </td>
    </tr>
  )
}

/** That a soft limit is passed, and when it begins to bind. */
function Grace({ node: { graceEndsAt }, now }: Pick<QuotaTreeProps, 'now'> & { readonly node: QuotaNode }) {
  if (graceEndsAt === null) return null
  const days = Math.ceil((graceEndsAt - now) / dayMilliseconds)
  return (
    <div>
      {days <= 0 ? (
        <State gravity="now">its grace is over</State>
      ) : (
        <State gravity="soon">over soft, {countWords(days, 'day', 'days')} left</State>
      )}
    </div>
  )
}

/** As far to the right as its bar and its limits reach. */
const endOf = ({ fromBytes, usedBytes, hardBytes, path }: QuotaNode) =>
  Number(fromBytes + usedBytes) < Number(hardBytes ?? 0n) && path === '/'
    ? Number(hardBytes)
    : Number(fromBytes + usedBytes)

function Bar({ node, most }: { readonly node: QuotaNode; readonly most: number }) {
  const { fromBytes, usedBytes, leftBytes, softBytes, hardBytes, depth, path } = node
  const at = (bytes: bigint) => Math.min(1, Number(bytes) / most) * (width - 2)
  const [from, to] = [at(fromBytes), at(fromBytes + usedBytes)]
  const end = leftBytes === null ? to : at(fromBytes + usedBytes + leftBytes)
  const id = `quota-${path.replace(/[^a-z0-9-]/gi, '_')}`
  const tick = (bytes: bigint, stroke: string, dash?: string) => (
    <line
      x1={at(fromBytes + bytes)}
      x2={at(fromBytes + bytes)}
      y1={1}
      y2={height - 1}
      stroke={stroke}
      strokeWidth={1.5}
      strokeDasharray={dash}
    />
  )
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" aria-hidden>
      <Hatch id={id} colour="var(--d4)" />
      <rect x={to} y={4} width={Math.max(0, end - to)} height={10} fill={`url(#${id})`} />
      <rect
        x={from}
        y={4}
        width={Math.max(usedBytes > 0n ? 1.5 : 0, to - from)}
        height={10}
        fill="var(--d4)"
        fillOpacity={Math.max(0.45, 1 - depth * 0.18)}
      />
      {softBytes !== null && at(fromBytes + softBytes) < width - 2 && tick(softBytes, 'var(--soon)', '2.5 2')}
      {hardBytes !== null && at(fromBytes + hardBytes) <= width - 2 && tick(hardBytes, 'var(--ink)')}
    </svg>
  )
}

/** Of many siblings the fullest, with all beneath them. */
function fewOfEach(nodes: readonly QuotaNode[]): { readonly shown: readonly QuotaNode[]; readonly hidden: number } {
  const shown: QuotaNode[] = []
  const counts = [0]
  let leaving: number | undefined
  for (const node of nodes) {
    if (leaving !== undefined && node.depth > leaving) continue
    leaving = undefined
    counts.length = node.depth + 1
    counts[node.depth] = (counts[node.depth] ?? 0) + 1
    if ((counts[node.depth] ?? 0) > shownOfSiblings) leaving = node.depth
    else shown.push(node)
  }
  return { shown, hidden: nodes.length - shown.length }
}

/** Which limit is met first by most, in a sentence. */
function stopWords(nodes: readonly QuotaNode[]): string {
  const own = nodes.slice(1)
  const early = own.filter(({ stoppedBy, path, hardBytes }) => stoppedBy !== path && hardBytes !== null)
  const full = own.filter(({ leftBytes }) => leftBytes === 0n)
  const said = [
    full.length === 0
      ? 'All of them can still be written to.'
      : `${countAtStart(full.length, 'directory takes', 'directories take')} nothing more.`,
    ...(early.length === 0
      ? []
      : [
          `${countAtStart(early.length, 'is', 'are')} stopped by what lies above before ${early.length === 1 ? 'its own limit' : 'their own limits'}.`,
        ]),
  ]
  return said.join(' ')
}
