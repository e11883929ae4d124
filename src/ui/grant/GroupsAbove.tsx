import Link from 'next/link'
import { wayTo } from '@/core/access'
import type { PersonPage } from '@/core/views'
import { Margin } from '../frame'

/** Who somebody is, and every group with the way by which they are in it. */
export function GroupsAbove({ page: { person, groups, directoryName } }: { readonly page: PersonPage }) {
  const known = new Map(groups.map(each => [each.durableId, each]))
  const lines = groups
    .map(group => ({ group, way: (wayTo(person, group.durableId, known) ?? []).slice(0, -1) }))
    .sort((a, b) => a.way.length - b.way.length || a.group.name.localeCompare(b.group.name))
  return (
    <Margin>
      <h2>{person.sort === 'group' ? 'Group' : 'Person'}</h2>
      <table className="plain">
        <tbody>
          <Fact name="Account">
            <span className="mono">{person.account}</span>
          </Fact>
          <Fact name={person.sort === 'group' ? 'gid' : 'uid, gid'}>
            <span className="mono">
              {person.number ?? 'none'}
              {person.sort === 'person' && `, ${person.primaryGid ?? 'none'}`}
            </span>
          </Fact>
          <Fact name="Directory">{directoryName}</Fact>
          <Fact name="Name there">
            <span className="mono break-words text-sm">{person.dn}</span>
          </Fact>
        </tbody>
      </table>
      <h3>
        In groups <span>through which others</span>
      </h3>
      {lines.length === 0 && <p className="mt-0 text-second">In none.</p>}
      {lines.map(({ group, way }) => (
        <div key={group.id} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-rule-fine py-[5px]">
          <Link className="font-semibold no-underline" href={`/grant/people/${group.id}`}>
            {group.name}
          </Link>
          <span className="mono text-second">{group.number ?? 'no gid'}</span>
          {way.length > 0 && (
            <span className="col-span-2 text-sm text-second">through {way.map(({ name }) => name).join(', ')}</span>
          )}
        </div>
      ))}
    </Margin>
  )
}

const Fact = ({ name, children }: { readonly name: string; readonly children: React.ReactNode }) => (
  <tr>
    <td className="whitespace-nowrap text-second">{name}</td>
    <td>{children}</td>
  </tr>
)
