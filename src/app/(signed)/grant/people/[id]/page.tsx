import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { isUuid } from '@/core/input'
import { personPage } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { GroupsAbove, PersonSentence, PersonShares } from '@/ui/grant'
import { grantParts } from '../../parts'

export const metadata = { title: 'Person' }

/** Somebody of a directory: their groups, and what they may do with every share, and why. */
interface PageProps {
  readonly params: Promise<{ readonly id: string }>
  /** A group that they would be in, or would leave. */
  readonly searchParams: Promise<Readonly<{ in?: string; out?: string }>>
}

export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params
  const { in: joined = '', out: left = '' } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = isUuid(id) ? await personPage(scope, id, supposition(joined, left)) : undefined
  if (page === undefined) notFound()
  const shown = plain(page)
  return (
    <Frame margin={<GroupsAbove page={shown} />}>
      <Title words={page.person.name}>
        <SubSections of={grantParts} />
      </Title>
      <PersonSentence page={shown} />
      <PersonShares page={shown} />
    </Frame>
  )
}

function supposition(joined: string, left: string) {
  if (isUuid(joined)) return { what: 'in', groupId: joined } as const
  return isUuid(left) ? ({ what: 'not in', groupId: left } as const) : undefined
}
