import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { defineRuleIntent, draftAddress } from '@/core/intents'
import { formatBytes } from '@/core/units'
import type { MonthReport } from '@/core/views'
import { monthReport, reportMonths } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { monthWords, ReportSheet, ReportTools } from '@/ui/watch/report'
import { watchParts } from '../parts'

export const metadata = { title: 'Report' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  const { month: asked } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const months = await reportMonths(scope)
  const month = months.find(each => each === asked) ?? months[0] ?? '1970-01'
  const report = await monthReport(scope, month)
  return (
    <Frame margin={<About />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <Sentence report={report} />
      <ReportTools report={report} months={months} />
      <ReportSheet report={report} />
    </Frame>
  )
}

function Sentence({ report: { month, isOver, pools } }: { readonly report: MonthReport }) {
  const known = pools.filter(({ firstBytes, lastBytes }) => firstBytes !== null && lastBytes !== null)
  const grown = known.reduce((sum, each) => sum + (each.lastBytes ?? 0) - (each.firstBytes ?? 0), 0)
  return (
    <p className="sentence">
      <b>
        {monthWords(month)}: {grown < 0 ? 'less by ' : 'more by '}
        {formatBytes(BigInt(Math.round(Math.abs(grown))))}
      </b>{' '}
      {isOver
        ? 'than at its beginning, in all pools together.'
        : 'than at its beginning until now, in all pools together.'}
    </p>
  )
}

const About = () => (
  <Margin>
    <h2>About reports</h2>
    <p className="mt-0">
      A month of capacity, promises and work, as it was measured. It is printed without what surrounds it here, and its
      figures are taken away as a table.
    </p>
    <p className="text-second">
      A rule of the report tells it to a route on the first of each month.{' '}
      <Link className="textlink" href={draftAddress(defineRuleIntent, {}) ?? ''}>
        Define a rule
      </Link>
    </p>
  </Margin>
)
