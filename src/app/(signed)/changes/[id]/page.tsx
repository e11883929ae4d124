import { Link } from '@/ui/parts/Link'
import { estateNow } from '@/records/inventory'
import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { draftHref } from '@/app/server/keptDraft'
import { kindNamed } from '@/changes'
import { linuxCommands } from '@/core/hosts'
import { formatSeconds, formatSecondsRange } from '@/core/units'
import { shownChange, timelineOf, type ShownChange, type JournalEntry, type Timeline } from '@/core/views'
import { changeById, evidenceOf, journalOf } from '@/records/changes'
import { volumePage } from '@/records/queries'
import { ChangeActions, ChangeState, Evidence, HostCommands } from '@/ui/changes'
import { PlanView } from '@/ui/drafts'
import { Margin, Page as Frame, Title } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'
import { Refusal } from '@/ui/parts/Refusal'
import { RunSheet } from '@/ui/drawings/runSheet'

export const metadata = { title: 'Change' }

export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const { scope } = await reader()
  const kept = isUuid(id) ? await changeById(scope, id) : undefined
  const change = kept === undefined ? undefined : shownChange(kept)
  if (change === undefined) notFound()
  const [journal, evidence, estate] = await Promise.all([journalOf(scope, id), evidenceOf(scope, id), estateNow(scope)])
  const timeline = timelineOf(change, journal, { wall: new Date(), estate })
  const canReverse =
    change.state === 'proven' &&
    kindNamed(change.kind).reverse(change.intent, change.facts as Readonly<Record<string, string>>) !== undefined
  return (
    <Frame
      margin={
        <ChangeMargin
          change={change}
          evidence={<Evidence entries={evidence} />}
          evidenceCount={evidence.length}
          canReverse={canReverse}
        />
      }
    >
      <Title words={change.title}>
        <span className="mono text-second">No. {change.number}</span>
      </Title>
      <p className="sentence">
        <b>{sentenceOf(change)}</b> {outcomeWords(change, timeline)}
      </p>
      {change.differences.length > 0 && <Differences change={change} />}
      {change.refusal !== null && change.state !== 'running' && <Refusal refusal={change.refusal} />}
      {change.stands !== null && <div className="advice">{change.stands}</div>}
      <RunSheet timeline={timeline} />
      {journal.length > 0 && <Steps journal={journal} change={change} />}
      {change.state === 'proven' && <Commands change={change} />}
    </Frame>
  )
}

function sentenceOf(change: ShownChange): string {
  switch (change.state) {
    case 'draft':
    case 'checked':
      return 'A draft: nothing has been changed yet.'
    case 'running':
      return change.isStopWanted ? 'It is coming to a safe stop.' : 'It is being carried out.'
    case 'proven':
      return 'Carried out and proven.'
    case 'unproven':
      return 'Carried out, but not proven.'
    case 'stopped':
      return 'Stopped at a safe point.'
    case 'failed':
      return 'It did not come to its end.'
    case 'undone':
      return 'What it had made was taken back.'
  }
}

function outcomeWords({ plan: { forecast } }: ShownChange, { nowSeconds, tookSeconds, left, clock }: Timeline): string {
  const range = formatSecondsRange(forecast.p10Seconds, forecast.p90Seconds)
  if (nowSeconds === null) {
    if (tookSeconds === null) return `Forecast: ${range}.`
    return `It took ${formatSeconds(tookSeconds)}; the forecast was ${range}, with ${formatSeconds(forecast.p50Seconds)} in the middle.`
  }
  if (left === undefined) return `Forecast: ${range}.`
  const whose = clock === 'estate' ? ' of the systems’ time' : ''
  return `By its pace now, this step ends in ${formatSecondsRange(left.p10Seconds, left.p90Seconds)}${whose}; all was forecast to take ${range}.`
}

function Steps({ journal, change }: { readonly journal: readonly JournalEntry[]; readonly change: ShownChange }) {
  const shown = journal.filter(
    (entry, index) =>
      entry.event !== 'progress' ||
      journal[index + 1]?.event !== 'progress' ||
      journal[index + 1]?.stepIndex !== entry.stepIndex,
  )
  return (
    <>
      <h3>
        What happened <span>{journal.length} entries in the journal</span>
      </h3>
      <table className="plain">
        <tbody>
          {shown.map(entry => (
            <tr key={entry.id}>
              <td className="whitespace-nowrap text-second">
                <Ago at={entry.at} />
              </td>
              <td>{entry.stepIndex < change.plan.steps.length ? `step ${entry.stepIndex + 1}` : 'proof'}</td>
              <td>{entry.event}</td>
              <td className="number">{entry.doneRatio === null ? '' : `${Math.round(entry.doneRatio * 100)}%`}</td>
              <td>{entry.words}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

/** After a proven mapping: what its hosts do next. */
async function Commands({ change }: { readonly change: ShownChange }) {
  const volumeId = change.kind === 'provision-volume' ? change.facts['volumeId'] : undefined
  const page =
    typeof volumeId === 'string' && volumeId !== '' ? await volumePage((await reader()).scope, volumeId) : undefined
  if (page === undefined || page.mappings.length === 0) return null
  return (
    <HostCommands commands={linuxCommands({ name: page.volume.name, naa: page.volume.naa, targets: page.targets })} />
  )
}

function ChangeMargin({
  change,
  evidence,
  evidenceCount,
  canReverse,
}: {
  readonly change: ShownChange
  readonly evidence: ReactNode
  readonly evidenceCount: number
  readonly canReverse: boolean
}) {
  const { volumeId, systemId } = change.facts
  return (
    <Margin>
      <h2>
        <ChangeState state={change.state} />
      </h2>
      <div className="text-second">
        by {change.madeBy}, drafted <Ago at={change.madeAt} />
      </div>
      <ChangeActions change={change} draftHref={draftHref(change)} canReverse={canReverse} />
      {typeof systemId === 'string' && change.kind === 'register-system' && change.state === 'proven' && (
        <OpenSystem systemId={systemId} />
      )}
      {typeof volumeId === 'string' && volumeId !== '' && change.state === 'proven' && (
        <OpenVolume volumeId={volumeId} />
      )}
      {evidenceCount > 0 && (
        <>
          <h3>Evidence</h3>
          {evidence}
        </>
      )}
      <PlanView plan={change.plan} />
    </Margin>
  )
}

interface DifferencesProps {
  readonly change: ShownChange
}

const Differences = ({ change }: DifferencesProps) => (
  <div role="alert" className="refusal">
    <div className="font-semibold">The estate changed before it began; this is the plan as it is now.</div>
    {change.differences.map(words => (
      <div key={words}>{words}</div>
    ))}
  </div>
)

interface OpenSystemProps {
  readonly systemId: unknown
}

const OpenSystem = ({ systemId }: OpenSystemProps) => (
  <p className="mt-3">
    <Link className="button" href={`/build/systems/${systemId}`}>
      Open the system
    </Link>
  </p>
)

interface OpenVolumeProps {
  readonly volumeId: unknown
}

const OpenVolume = ({ volumeId }: OpenVolumeProps) => (
  <p className="mt-3">
    <Link className="textlink" href={`/provision?sel=${volumeId}`}>
      Open the volume
    </Link>
  </p>
)
