import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { personPage } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { GroupsAbove, PersonSentence, PersonShares } from '@/ui/grant'
import { grantParts } from '../../parts'

export const metadata = { title: 'Person' }

/** Somebody of a directory: their groups, and what they may do with every share, and why. */
export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const { scope } = await reader()
  const page = isUuid(id) ? await personPage(scope, id) : undefined
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
