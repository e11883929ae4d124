import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { healthPage } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { FindingList } from '@/ui/watch/findings'
import { Drives, healthSentence, Sensors, Sources } from '@/ui/watch/health'
import { watchParts } from '../parts'
import { signMargin } from './signMargin'

export const metadata = { title: 'Health' }

interface PageProps {
  readonly searchParams: Promise<Readonly<Partial<Record<'draft' | 'change' | 'finding', string>>>>
}

export default async function Page({ searchParams }: PageProps) {
  const { draft, change, finding: findingKey = '' } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = await healthPage(scope)
  const signing = draft === 'sign-exception' ? await signMargin({ findingKey, change }) : undefined
  const { first, then } = healthSentence(page)
  return (
    <Frame
      margin={
        signing ?? (
          <Margin>
            <FindingList records={page.findings} />
          </Margin>
        )
      }
    >
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <p className="sentence">
        <b>{first}</b> {then}
      </p>
      <h3>
        What is known of each system <span>by the estate’s clock</span>
      </h3>
      <Sources sources={page.sources} />
      <Parts page={page} />
    </Frame>
  )
}

/** The drives and sensors that are nearest to trouble. */
const Parts = ({ page }: { readonly page: Awaited<ReturnType<typeof healthPage>> }) => (
  <>
    {page.drives.length > 0 && (
      <>
        <h3>
          Drives to look at{' '}
          <span>those that are not well, then the most worn, of {page.driveCount.toLocaleString('en')}</span>
        </h3>
        <Drives drives={page.drives} findings={page.findings} />
      </>
    )}
    {page.sensors.length > 0 && (
      <>
        <h3>
          Sensors <span>the nearest to their caution, of {page.sensorCount.toLocaleString('en')}</span>
        </h3>
        <Sensors sensors={page.sensors} />
      </>
    )}
  </>
)
