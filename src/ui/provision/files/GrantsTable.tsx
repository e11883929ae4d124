import { Link } from '../../parts/Link'
import { everybody, type ShareGrant } from '@/core/access'

const words = { none: 'refused', read: 'read', change: 'read, write', full: 'all, and set rights' } as const

interface GrantsTableProps {
  readonly grants: readonly ShareGrant[]
  /** Those of its whole service, where they count as well. */
  readonly serviceGrants?: readonly ShareGrant[]
  /** Where those are set. */
  readonly serviceHref?: string
  /** Of a whole service: for whom it has none, each share decides. */
  readonly isForAll?: boolean
}

/** Who may do what over SMB, a refusal before all others. */
export function GrantsTable({ grants, serviceGrants = [], serviceHref = '', isForAll = false }: GrantsTableProps) {
  const hasWhere = serviceGrants.length > 0
  const isOpen = [...grants, ...serviceGrants].some(({ who }) => who === everybody)
  return (
    <>
      <h3>
        {isForAll ? 'Grants for all its shares, over SMB' : 'Grants, over SMB'}{' '}
        <span>a refusal before all others, then the widest of somebody’s groups</span>
      </h3>
      <table className="plain rows">
        <thead>
          <tr>
            <th>Who</th>
            <th>May</th>
            {hasWhere && <th>Where</th>}
          </tr>
        </thead>
        <tbody>
          {grants.map(grant => (
            <tr key={grant.who}>
              <GrantCells grant={grant} />
              {hasWhere && <td data-head="Where">this share</td>}
            </tr>
          ))}
          {serviceGrants.map(grant => (
            <ServiceGrant key={`service ${grant.who}`} grant={grant} href={serviceHref} />
          ))}
          {!isOpen && (
            <tr className="text-second">
              <td>anybody else</td>
              <td colSpan={hasWhere ? 2 : 1}>{isForAll ? 'as each share says' : 'refused: no grant'}</td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}

const ServiceGrant = ({ grant, href }: { readonly grant: ShareGrant; readonly href: string }) => (
  <tr>
    <GrantCells grant={grant} />
    <td data-head="Where">
      <Link className="textlink" href={href}>
        its whole service
      </Link>
    </td>
  </tr>
)

const GrantCells = ({ grant: { who, name, right } }: { readonly grant: ShareGrant }) => (
  <>
    <td className="font-semibold">{who === everybody ? 'Everybody who signs in' : name}</td>
    <td data-head="May" className={right === 'none' ? 'text-now' : undefined}>
      {words[right]}
    </td>
  </>
)
