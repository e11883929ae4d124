import { reader } from '@/app/server/guard'
import { reviewList } from '@/records/reviews'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { LatestReviews, ReviewSentence, ReviewTable } from '@/ui/grant'
import { grantParts } from '../parts'

export const metadata = { title: 'Reviews of rights' }

/** Which rights somebody has looked at, and what is no longer as was decided. */
export default async function Page() {
  const { scope } = await reader()
  const list = await reviewList(scope)
  return (
    <Frame
      margin={
        <Margin>
          <h2>Latest reviews</h2>
          <LatestReviews list={list} />
        </Margin>
      }
    >
      <Title words="Reviews of rights">
        <SubSections of={grantParts} />
      </Title>
      <ReviewSentence list={list} />
      {list.shares.length > 0 && <ReviewTable list={list} />}
    </Frame>
  )
}
