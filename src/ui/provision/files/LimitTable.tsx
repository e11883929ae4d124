import { pathsOf, projectKey, readQuotas, type Quota } from '@/core/filetree'
import type { Share } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { Ago } from '../../parts/Ago'
import { Bytes } from '../../parts/Bytes'
import { Hatch } from '../../parts/Hatch'
import { State } from '../../parts/State'

const shownOfEach = 6
const [width, height] = [220, 16]

/** Quotas of users, groups, projects and directories yet to be made, with what has been written of each; and kinds of files that are refused or told of. */
export function LimitTable({ share }: { readonly share: Share }) {
  const quotas = readQuotas(share.quotas)
  // Directories with something in them stand in their tree.
  const isOfPeople = ({ of }: Quota, index: number) =>
    of === 'user' ||
    of === 'group' ||
    of === 'project' ||
    (of === 'each directory' && !share.quotaUsage.some(each => each.index === index))
  const ofPeople = quotas.some(isOfPeople)
  return (
    <>
      {(quotas.length === 0 || ofPeople) && (
        <h3>
          Quotas <span>{ofPeople && 'each bar to its own limit · hatched: left to write · dashed: soft'}</span>
        </h3>
      )}
      {quotas.length === 0 && <p className="mt-0 text-second">None: whoever may write may fill it.</p>}
      {ofPeople && (
        <table className="plain rows">
          <QuotaHead />
          <tbody>
            {quotas.map(
              (quota, index) =>
                isOfPeople(quota, index) && (
                  <QuotaRows
                    key={index}
                    quota={quota}
                    index={index}
                    used={share.quotaUsage.filter(each => each.index === index)}
                  />
                ),
            )}
          </tbody>
        </table>
      )}
      {share.fileRules.length > 0 && <FileRules rules={share.fileRules} />}
    </>
  )
}

const QuotaHead = () => (
  <thead>
    <tr>
      <th>Of</th>
      <th className="w-[30%]"> </th>
      <th className="number">Used</th>
      <th className="number">Soft</th>
      <th className="number">Hard</th>
      <th>Over soft since</th>
    </tr>
  </thead>
)

interface QuotaRowsProps {
  readonly quota: Quota
  readonly index: number
  readonly used: Share['quotaUsage']
}

/** One quota: whoever has written most under it. */
function QuotaRows({ quota, index, used }: QuotaRowsProps) {
  const rows = used.length === 0 ? [undefined] : used.slice(0, shownOfEach)
  const limit = (bytes: bigint | null) => (bytes === null ? '–' : formatBytes(bytes))
  return rows.map(each => {
    const bytes = BigInt(each?.usedBytes ?? 0)
    return (
      <tr key={each?.key ?? ''}>
        <td className="mono">{each === undefined || quota.of === 'project' ? ofWords(quota) : each.key}</td>
        <td>
          <QuotaBar id={`${index}-${each?.key ?? ''}`} quota={quota} used={bytes} />
        </td>
        <td data-head="Used" className="number">
          <Bytes bytes={bytes} />
        </td>
        <td data-head="Soft" className="number">
          {limit(quota.softBytes)}
        </td>
        <td data-head="Hard" className="number">
          {limit(quota.hardBytes)}
        </td>
        <td>
          {each?.overSoftSince != null && (
            <State gravity="soon">
              <Ago at={each.overSoftSince} />
            </State>
          )}
          {used.length > shownOfEach && each === rows.at(-1) && (
            <span className="text-second"> and {used.length - shownOfEach} more</span>
          )}
        </td>
      </tr>
    )
  })
}

const FileRules = ({ rules }: { readonly rules: Share['fileRules'] }) => (
  <>
    <h3>Kinds of files</h3>
    <table className="plain">
      <tbody>
        {rules.map(({ pattern, content, verdict }, index) => (
          <tr key={index}>
            <td className="mono">{pattern}</td>
            <td>{content === 'any' ? 'whatever is in it' : `is ${content} by its first bytes`}</td>
            <td>
              <State gravity={verdict === 'deny' ? 'now' : 'note'}>{verdict === 'deny' ? 'refused' : 'told of'}</State>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  </>
)

const ofWords = ({ of, path, id, project }: Quota) =>
  of === 'tree'
    ? path
    : of === 'project'
      ? `${projectKey({ project })}: ${pathsOf({ path, project }).join(', ')}`
      : id === null
        ? `each ${of === 'each directory' ? 'directory' : of} in ${path}`
        : `${of} ${id} in ${path}`

interface QuotaBarProps {
  readonly id: string
  readonly quota: Quota
  readonly used: bigint
}

function QuotaBar({ id, quota, used }: QuotaBarProps) {
  const most = Math.max(1, Number(used), Number(quota.hardBytes ?? quota.softBytes ?? 0n))
  const at = (bytes: bigint) => Math.min(1, Number(bytes) / most) * (width - 2)
  const { hardBytes, softBytes } = quota
  const end = at(hardBytes ?? softBytes ?? used)
  const isOver = hardBytes !== null && used > hardBytes
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" aria-hidden>
      <Hatch id={`quota-${id.replace(/[^a-z0-9-]/gi, '_')}`} colour="var(--d4)" />
      <rect x={0} y={3} width={end} height={10} fill={`url(#quota-${id.replace(/[^a-z0-9-]/gi, '_')})`} />
      <rect
        x={0}
        y={3}
        width={Math.max(used > 0n ? 1.5 : 0, at(used))}
        height={10}
        fill={isOver ? 'var(--now)' : 'var(--d4)'}
      />
      {softBytes !== null && (
        <line
          x1={at(softBytes)}
          x2={at(softBytes)}
          y1={0}
          y2={height}
          stroke="var(--soon)"
          strokeWidth={1.4}
          strokeDasharray="2.5 2"
        />
      )}
      {hardBytes !== null && (
        <line x1={at(hardBytes)} x2={at(hardBytes)} y1={0} y2={height} stroke="var(--ink)" strokeWidth={1.6} />
      )}
    </svg>
  )
}
