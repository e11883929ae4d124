'use client'
import { Link } from '../parts/Link'
import { useRouter } from 'next/navigation'
import { modifyScript } from '@/core/network'
import type { PersonPage } from '@/core/views'
import { Copied } from '../parts/Copied'
import { PersonChoice } from '../people'
import { ServerLists } from '../table'

/** A group is chosen in which somebody would be. */
export function SupposeIn({ person }: Pick<PersonPage, 'person'>) {
  const router = useRouter()
  return (
    <>
      <h3>As if in another</h3>
      <ServerLists>
        <PersonChoice
          label="Group"
          hint="What every share would then let them do. Nothing is changed by that."
          chosen=""
          sort="group"
          onChoose={group => {
            if (group !== undefined) router.push(`/grant/people/${person.id}?in=${group.id}`)
          }}
        />
      </ServerLists>
    </>
  )
}

/** How what is supposed is made so: Wendrel writes nothing to a directory. */
export function Supposed({ page: { person, supposed } }: { readonly page: PersonPage }) {
  if (supposed === null) return null
  const { what, group } = supposed
  const script = modifyScript(group.dn, what === 'in' ? 'add' : 'delete', 'member', [person.dn])
  return (
    <>
      <h3>To make it so</h3>
      <p className="mt-0 text-second">
        {what === 'in' ? `${person.name} is put into ${group.name}` : `${person.name} is taken out of ${group.name}`} in
        the directory, by whoever looks after it; this script does it (RFC 2849). What has changed there is read by
        itself; a person has it from the next sign-in on.
      </p>
      <Copied
        text={script}
        className="block whitespace-pre-wrap text-sm"
        shown={<span className="block border border-rule-fine bg-paper p-2">{script.trim()}</span>}
      />
      <p>
        <Link className="textlink" href={`/grant/people/${person.id}`}>
          As it is now
        </Link>
      </p>
    </>
  )
}
