import { Link } from '../parts/Link'
import { wayTo } from '@/core/access'
import type { PersonPage } from '@/core/views'
import { Margin } from '../frame'
import { Supposed, SupposeIn } from './Suppose'

/** Who somebody is, and every group with the way by which they are in it. */
export function GroupsAbove({ page }: { readonly page: PersonPage }) {
  const { person, directoryName, supposed } = page
  const lines = waysOf(page)
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
      {lines.map(line => (
        <GroupLine key={line.group.id} line={line} person={person} />
      ))}
      {person.sort === 'person' && (supposed === null ? <SupposeIn person={person} /> : <Supposed page={page} />)}
    </Margin>
  )
}

/** Every group that somebody is in, the nearest first. */
const waysOf = ({ person, groups }: PersonPage) => {
  const known = new Map(groups.map(each => [each.durableId, each]))
  return groups
    .flatMap(group => {
      const way = wayTo(person, group.durableId, known)
      // Groups above one that is only supposed are none of theirs.
      return way === undefined ? [] : [{ group, way: way.slice(0, -1) }]
    })
    .sort((a, b) => a.way.length - b.way.length || a.group.name.localeCompare(b.group.name))
}

interface GroupLineProps {
  readonly line: ReturnType<typeof waysOf>[number]
  readonly person: PersonPage['person']
}

const GroupLine = ({ line: { group, way }, person }: GroupLineProps) => (
  <div className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-rule-fine py-[5px]">
    <Link className="font-semibold no-underline" href={`/grant/people/${group.id}`}>
      {group.name}
    </Link>
    <span className="mono text-second">{group.number ?? 'no gid'}</span>
    {way.length > 0 ? (
      <span className="col-span-2 text-sm text-second">through {way.map(({ name }) => name).join(', ')}</span>
    ) : (
      person.sort === 'person' && (
        <Link className="textlink col-span-2 text-sm" href={`/grant/people/${person.id}?out=${group.id}`}>
          as if not in it
        </Link>
      )
    )}
  </div>
)

const Fact = ({ name, children }: { readonly name: string; readonly children: React.ReactNode }) => (
  <tr>
    <td className="whitespace-nowrap text-second">{name}</td>
    <td>{children}</td>
  </tr>
)
