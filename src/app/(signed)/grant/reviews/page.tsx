import { reader } from '@/app/server/guard'
import { reviewList } from '@/records/reviews'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { ReviewSentence, ReviewTable } from '@/ui/grant'
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
          <h2>Why look again</h2>
          <p className="mt-0 text-second">
            Rights are given for a reason, and reasons pass. What is decided here is kept with who decided it and when;
            what is to go becomes a draft, and what is given afterwards is told.
          </p>
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
