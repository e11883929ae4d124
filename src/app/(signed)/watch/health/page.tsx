import { reader } from '@/app/server/guard'
import { healthPage } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { FindingList } from '@/ui/watch/findings'
import { Drives, healthSentence, Sensors, Sources } from '@/ui/watch/health'
import { watchParts } from '../parts'

export const metadata = { title: 'Health' }

export default async function Page() {
  const { scope } = await reader()
  const page = await healthPage(scope)
  const { first, then } = healthSentence(page)
  return (
    <Frame
      margin={
        <Margin>
          <FindingList records={page.findings} />
        </Margin>
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
      {page.drives.length > 0 && (
        <>
          <h3>
            Drives to look at{' '}
            <span>those that are not well, then the most worn, of {page.driveCount.toLocaleString('en')}</span>
          </h3>
          <Drives drives={page.drives} />
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
    </Frame>
  )
}
