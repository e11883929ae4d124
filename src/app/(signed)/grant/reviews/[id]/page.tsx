import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { countAtStart } from '@/core/units'
import { reviewPage } from '@/records/reviews'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { ReviewMargin, ReviewSheet } from '@/ui/grant'
import { grantParts } from '../../parts'

export const metadata = { title: 'Review of rights' }

/** All rights of one share, each to be decided anew. */
export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const { scope } = await reader()
  const page = isUuid(id) ? await reviewPage(scope, id) : undefined
  if (page === undefined) notFound()
  const shown = plain(page)
  return (
    <Frame margin={<ReviewMargin page={shown} />}>
      <Title words={page.share.name}>
        <SubSections of={grantParts} />
      </Title>
      <p className="sentence">
        <b>
          {page.lines.length === 0
            ? 'Nobody has a right on it.'
            : `${countAtStart(page.lines.length, 'right', 'rights')}, each to stay or to go.`}
        </b>{' '}
        Modes of files, and who is in which group, are not decided here.
      </p>
      <ReviewSheet page={shown} />
    </Frame>
  )
}
