import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { defineRouteIntent, defineRuleIntent, draftAddress } from '@/core/intents'
import { objects } from '@/records/objects'
import { latestMessages } from '@/records/telling'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { tellingSentence, ToldMargin, ToldTable } from '@/ui/watch/telling'
import { watchParts } from '../parts'

export const metadata = { title: 'Telling' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  const { sel } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const messages = await latestMessages(scope)
  const [rules, routes] = [await objects(scope, 'rules'), await objects(scope, 'routes')]
  const { first, then } = tellingSentence(messages, { rules: rules.length, routes: routes.length })
  const selected = messages.find(({ id }) => id === sel)
  return (
    <Frame margin={selected === undefined ? <About /> : <ToldMargin told={selected} />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <p className="sentence">
        <b>{first}</b> {then}
      </p>
      {messages.length > 0 && <ToldTable messages={messages} selected={sel} />}
    </Frame>
  )
}

const About = () => (
  <Margin
    foot={[defineRuleIntent, defineRouteIntent].map(each => (
      <NewDraft key={each.kind} href={draftAddress(each, {}) ?? ''}>
        {each.title}
      </NewDraft>
    ))}
  >
    <h2>About telling</h2>
    <p className="mt-0">
      A rule says of what somebody is told: findings, the fill of a pool, the days until its limit, latency, or the
      round of the day. Of one cause there is one message when it begins and one when it is over.
    </p>
    <p className="text-second">
      A route says where: a signed request to a webhook, a mail, or a line of syslog. What a receiver does not take is
      sent again for a day, and stands here until then.
    </p>
  </Margin>
)
