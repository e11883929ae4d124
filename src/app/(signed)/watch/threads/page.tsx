import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { connected, stops, type Part } from '@/core/threads'
import { countWords } from '@/core/units'
import type { ThreadPage } from '@/core/views'
import { threadPage } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { ThreadDrawing, ThreadMargin } from '@/ui/watch/threads'
import { watchParts } from '../parts'

export const metadata = { title: 'Threads' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  const { sel } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = await threadPage(scope, sel?.slice(0, 300))
  const part = page.threads.flatMap(thread => stops.flatMap(stop => thread[stop])).find(({ key }) => key === sel)
  return (
    <Frame margin={part === undefined ? <About /> : <ThreadMargin page={page} part={part} />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <Sentence page={page} part={part} />
      {page.threads.length > 0 && (
        <>
          <h3>
            What stands on what{' '}
            <span>
              {page.threads.length < page.total
                ? `${page.threads.length} of ${page.total.toLocaleString('en')} volumes, those first that miss their promise by most`
                : 'every volume in use'}
            </span>
          </h3>
          <ThreadDrawing page={page} sel={part?.key} />
        </>
      )}
    </Frame>
  )
}

function Sentence({ page, part }: { readonly page: ThreadPage; readonly part: Part | undefined }) {
  if (page.threads.length === 0)
    return (
      <p className="sentence">
        <b>No volume is in use yet.</b> Threads lead from applications to the drives that they stand on.
      </p>
    )
  if (part === undefined)
    return (
      <p className="sentence">
        <b>Point at any part:</b> its threads are drawn, and what it carries and needs stands beside it.
      </p>
    )
  const { carries, needs } = connected(page.threads, part.key)
  const worst = needs.find(({ key }) => page.states[key]?.gravity === 'now')
  return (
    <p className="sentence">
      <b>
        {part.name} carries {countWords(carries.length, 'part', 'parts')} and needs{' '}
        {countWords(needs.length, 'part', 'parts')}.
      </b>{' '}
      {worst === undefined
        ? 'All that it stands on is whole.'
        : `Of what it stands on, ${worst.name} is hurt: ${page.states[worst.key]?.words ?? ''}.`}
    </p>
  )
}

const About = () => (
  <Margin>
    <h2>About threads</h2>
    <p className="mt-0">
      A thread leads from what is felt to what it stands on: an application, its hosts or shares, a volume, the pool,
      groups of its drives. Of a symptom the thread shows which parts could be its cause; of a part, who would feel it.
    </p>
  </Margin>
)
