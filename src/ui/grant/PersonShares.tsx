import { Link } from '../parts/Link'
import type { Right } from '@/core/access'
import { countWords } from '@/core/units'
import type { PersonPage } from '@/core/views'
import { linesOf } from './personLines'
import { RightMark, rightWords } from './RightMark'

interface PageProps {
  readonly page: PersonPage
}

/** Every share with what somebody may do with it, and why no more. */
export function PersonShares({ page }: PageProps) {
  if (page.person.sort === 'group') return <Members page={page} />
  const lines = linesOf(page)
  return (
    <>
      <h3>
        Shares <span>over NFS from the {countWords(page.hosts.length, 'host', 'hosts')} whose address is known</span>
      </h3>
      {lines.length === 0 && <p className="mt-0 text-second">No share is there yet.</p>}
      {lines.length > 0 && (
        <table className="plain rows">
          <thead>
            <tr>
              <th>Share</th>
              <th className="text-center">Over SMB</th>
              <th className="text-center">Over NFS</th>
              <th>What stands before more</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(line => (
              <ShareLine key={line.share.id} line={line} hostCount={page.hosts.length} />
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}

interface ShareLineProps {
  readonly line: ReturnType<typeof linesOf>[number]
  readonly hostCount: number
}

const ShareLine = ({ line, hostCount }: ShareLineProps) => {
  const { share, overSmb, overNfs, hosts, why, then, isOtherwise } = line
  return (
    <tr>
      <td className="font-semibold">
        <Link className="no-underline" href={`/provision/shares/${share.id}`}>
          {share.name}
        </Link>
      </td>
      <td data-head="Over SMB" className="text-center whitespace-nowrap">
        {overSmb === undefined ? <span className="text-second">–</span> : <Turned from={overSmb} to={then?.overSmb} />}
      </td>
      <td data-head="Over NFS" className="text-center whitespace-nowrap">
        {overNfs === undefined ? (
          <span className="text-second">–</span>
        ) : (
          <>
            <Turned from={overNfs} to={then?.overNfs} />{' '}
            {overNfs !== 'none' && (
              <span className="text-second">
                from {hosts} of {hostCount}
              </span>
            )}
          </>
        )}
      </td>
      <td data-head="Before more" className="text-second">
        {isOtherwise ? `then ${then?.why ?? ''}` : why}
      </td>
    </tr>
  )
}

const Marked = ({ right }: { readonly right: Right }) => (
  <>
    <RightMark right={right} /> {rightWords(right)}
  </>
)

/** A right now, and what it would be where that is another. */
const Turned = ({ from, to }: { readonly from: Right; readonly to: Right | undefined }) => (
  <>
    <Marked right={from} />
    {to !== undefined && to !== from && (
      <b className="font-semibold">
        {' '}
        → <Marked right={to} />
      </b>
    )}
  </>
)

function Members({ page: { members, memberCount } }: PageProps) {
  return (
    <>
      <h3>
        In it{' '}
        {memberCount > members.length && (
          <span>
            {members.length} of {memberCount}
          </span>
        )}
      </h3>
      <table className="plain rows">
        <tbody>
          {members.map(({ id, name, account, sort, isDisabled }) => (
            <tr key={id}>
              <td className="font-semibold">
                <Link className="no-underline" href={`/grant/people/${id}`}>
                  {name}
                </Link>
              </td>
              <td className="mono text-second">{sort === 'group' ? 'group' : account}</td>
              <td className="text-soon">{isDisabled ? 'cannot sign in' : ''}</td>
            </tr>
          ))}
          {members.length === 0 && (
            <tr>
              <td className="text-second">nobody</td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}
