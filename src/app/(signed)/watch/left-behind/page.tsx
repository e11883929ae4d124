import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { leftDays } from '@/core/views'
import { estateNow } from '@/records/inventory'
import { leftBehind } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { LeftLists, leftSentence, WhatCounts } from '@/ui/watch/leftBehind'
import { watchParts } from '../parts'

export const metadata = { title: 'Left behind' }

const usualDays = 30

type Search = Promise<{ readonly days?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const { days } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const left = await leftBehind(scope, leftDays.find(each => `${each}` === days) ?? usualDays, await estateNow(scope))
  const { first, then } = leftSentence(left)
  return (
    <Frame margin={<WhatCounts left={left} />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <p className="sentence">
        <b>{first}</b> {then}
      </p>
      <LeftLists left={left} />
    </Frame>
  )
}
