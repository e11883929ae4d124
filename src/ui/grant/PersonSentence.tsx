import { rings } from '@/core/access'
import { countAtStart, countWords } from '@/core/units'
import type { PersonPage } from '@/core/views'
import { linesOf, widest } from './personLines'

interface PageProps {
  readonly page: PersonPage
}

/** Groups that contain each other have the same people, which is hardly meant. */
function ringWords({ person, groups }: PersonPage): string {
  const all = new Map([...groups, person].map(each => [each.durableId, each]))
  const ring = rings(all).find(each => each.some(({ id }) => id === person.id))
  if (ring === undefined) return ''
  const others = ring.filter(({ id }) => id !== person.id).map(({ name }) => name)
  return others.length === 0
    ? 'It contains itself.'
    : `It and ${others.join(', ')} contain each other: who is in one is in all.`
}

/** How much somebody may, in a sentence. */
export function PersonSentence({ page }: PageProps) {
  const { person, memberCount } = page
  const gone = person.goneSince === null ? '' : `Its directory has not had it since ${person.goneSince.slice(0, 10)}. `
  if (person.sort === 'group')
    return (
      <p className="sentence">
        <b>
          {memberCount === 0
            ? 'Nobody is in it.'
            : `${countAtStart(memberCount, 'member is', 'members are')} in it themselves.`}
        </b>{' '}
        {gone}
        {person.number === null && 'It has no gid: over NFS and in modes it counts for nothing. '}
        {ringWords(page)}
      </p>
    )
  const lines = linesOf(page)
  if (page.supposed !== null)
    return <SupposedSentence page={page} otherwise={lines.filter(each => each.isOtherwise).length} />
  const rights = lines.map(each => widest([each.overSmb ?? 'none', each.overNfs ?? 'none']))
  const change = rights.filter(right => right === 'change' || right === 'write only').length
  const read = rights.filter(right => right === 'read').length
  return (
    <p className="sentence">
      <b>
        {person.isDisabled
          ? 'That account cannot sign in.'
          : `May change ${countWords(change, 'share', 'shares')}, and read ${read === 0 ? 'no other' : countWords(read, 'other', 'others')}.`}
      </b>{' '}
      {gone}
      {person.number === null && 'It has no uid: to files it is nobody. '}
      To administer Wendrel is no right on data.
    </p>
  )
}

const SupposedSentence = ({
  page: { person, supposed, shares },
  otherwise,
}: {
  readonly page: PersonPage
  readonly otherwise: number
}) => (
  <p className="sentence">
    <b>
      {otherwise === 0
        ? 'Nothing would be otherwise.'
        : `${countAtStart(otherwise, 'share', 'shares')} of ${shares.length} would be otherwise.`}
    </b>{' '}
    As if {person.name} were {supposed?.what === 'in' ? 'in' : 'no longer in'} {supposed?.group.name}; nothing has been
    changed.
  </p>
)
