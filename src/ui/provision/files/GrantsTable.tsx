import { everybody } from '@/core/access'
import type { Share } from '@/core/estate'

const words = { none: 'refused', read: 'read', change: 'read, write', full: 'all, and set rights' } as const

/** Who may do what over SMB, a refusal before all others. */
export function GrantsTable({ grants }: Pick<Share, 'grants'>) {
  return (
    <>
      <h3>
        Grants, over SMB <span>a refusal before all others, then the widest of somebody’s groups</span>
      </h3>
      <table className="plain rows">
        <thead>
          <tr>
            <th>Who</th>
            <th>May</th>
          </tr>
        </thead>
        <tbody>
          {grants.map(({ who, name, right }) => (
            <tr key={who}>
              <td className="font-semibold">{who === everybody ? 'Everybody who signs in' : name}</td>
              <td data-head="May" className={right === 'none' ? 'text-now' : undefined}>
                {words[right]}
              </td>
            </tr>
          ))}
          {!grants.some(({ who }) => who === everybody) && (
            <tr className="text-second">
              <td>anybody else</td>
              <td>refused: no grant</td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}
