import Link from 'next/link'
import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { context } from '@/app/server/context'
import { draftHref } from '@/app/server/keptDraft'
import { kindNamed } from '@/changes'
import { linuxCommands } from '@/core/hosts'
import { runSheet, type JournalMark } from '@/core/plan'
import { forecastDuring } from '@/core/transfer'
import { formatSeconds, formatSecondsRange } from '@/core/units'
import type { ChangeRecord, JournalEntry } from '@/core/views'
import { estateNow } from '@/drafting'
import { changeById, evidenceOf, journalOf } from '@/records/changes'
import { volumePage } from '@/records/queries'
import { ChangeActions, ChangeState, Evidence, HostCommands } from '@/ui/changes'
import { PlanView } from '@/ui/drafts'
import { Margin, Page as Frame, Title } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'
import { Refusal } from '@/ui/parts/Refusal'
import { RunSheet } from '@/ui/runSheet'

export const metadata = { title: 'Change' }

export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const scope = { database: context().database }
  const change = /^[0-9a-f-]{36}$/.test(id) ? await changeById(scope, id) : undefined
  if (change === undefined) notFound()
  const [journal, evidence, now] = await Promise.all([journalOf(scope, id), evidenceOf(scope, id), estateNow(scope)])
  const isBegun = change.carriedOutEstateAt !== null
  const seconds = (at: string) => Math.max(0, (Date.parse(at) - Date.parse(change.carriedOutEstateAt ?? at)) / 1000)
  const nowSeconds =
    change.state === 'running'
      ? Math.max(0, (now.getTime() - Date.parse(change.carriedOutEstateAt ?? now.toISOString())) / 1000)
      : null
  const marks: JournalMark[] = journal.map(entry => ({
    stepIndex: entry.stepIndex,
    event: entry.event,
    atSeconds: seconds(entry.estateAt),
    ...(entry.doneRatio === null ? {} : { doneRatio: entry.doneRatio }),
  }))
  const lanes = runSheet(
    change.plan,
    marks,
    nowSeconds ?? (change.endedEstateAt === null ? 0 : seconds(change.endedEstateAt)),
  )
  const allDone = lanes.every(lane => lane.state === 'done')
  const proofFrom = allDone ? Math.max(0, ...lanes.map(lane => lane.to ?? 0)) : null
  const proofTo =
    change.state === 'running' ? nowSeconds : change.endedEstateAt === null ? null : seconds(change.endedEstateAt)
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
        <b>{sentenceOf(change)}</b> {isBegun ? outcomeWords(change, nowSeconds, marks) : ''}
      </p>
      {change.differences.length > 0 && (
        <div role="alert" className="refusal">
          <div className="font-semibold">The estate changed before it began; this is the plan as it is now.</div>
          {change.differences.map(words => (
            <div key={words}>{words}</div>
          ))}
        </div>
      )}
      {change.refusal !== null && change.state !== 'running' && <Refusal refusal={change.refusal} />}
      {change.stands !== null && <div className="advice">{change.stands}</div>}
      <RunSheet lanes={lanes} nowSeconds={nowSeconds} proofFrom={proofFrom} proofTo={proofTo} />
      {isBegun && <Steps journal={journal} change={change} />}
      {change.state === 'proven' && <Commands change={change} />}
    </Frame>
  )
}

function sentenceOf(change: ChangeRecord): string {
  switch (change.state) {
    case 'draft':
    case 'checked':
      return 'A draft: nothing has been changed yet.'
    case 'running':
      return change.isStopWanted ? 'It is coming to a safe stop.' : 'It is being carried out.'
    case 'proven':
      return 'Carried out and proven.'
    case 'stopped':
      return 'Stopped at a safe point.'
    case 'failed':
      return 'It did not come to its end.'
    case 'undone':
      return 'What it had made was taken back.'
  }
}

function outcomeWords(change: ChangeRecord, nowSeconds: number | null, marks: readonly JournalMark[]): string {
  const { forecast } = change.plan
  const range = formatSecondsRange(forecast.p10Seconds, forecast.p90Seconds)
  if (nowSeconds === null) {
    const took =
      change.endedEstateAt === null || change.carriedOutEstateAt === null
        ? 0
        : (Date.parse(change.endedEstateAt) - Date.parse(change.carriedOutEstateAt)) / 1000
    return `It took ${formatSeconds(took)}; the forecast was ${range}, with ${formatSeconds(forecast.p50Seconds)} in the middle.`
  }
  const step = marks.at(-1)?.stepIndex
  const samples = marks
    .filter(mark => mark.stepIndex === step && (mark.doneRatio !== undefined || mark.event === 'begun'))
    .map(mark => ({ atSeconds: mark.atSeconds, doneRatio: mark.doneRatio ?? 0 }))
  const left = forecastDuring(samples)
  return left === undefined
    ? `Forecast: ${range}.`
    : `By its pace now, this step ends in ${formatSecondsRange(left.p10Seconds, left.p90Seconds)} of the systems' time; all was forecast to take ${range}.`
}

function Steps({ journal, change }: { readonly journal: readonly JournalEntry[]; readonly change: ChangeRecord }) {
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
async function Commands({ change }: { readonly change: ChangeRecord }) {
  const volumeId = change.kind === 'provision-volume' ? change.facts['volumeId'] : undefined
  const page =
    typeof volumeId === 'string' && volumeId !== ''
      ? await volumePage({ database: context().database }, volumeId)
      : undefined
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
  readonly change: ChangeRecord
  readonly evidence: ReactNode
  readonly evidenceCount: number
  readonly canReverse: boolean
}) {
  const volumeId = change.facts['volumeId']
  return (
    <Margin>
      <h2>
        <ChangeState state={change.state} />
      </h2>
      <div className="text-second">
        by {change.madeBy}, drafted <Ago at={change.madeAt} />
      </div>
      <ChangeActions change={change} draftHref={draftHref(change)} canReverse={canReverse} />
      {typeof volumeId === 'string' && volumeId !== '' && change.state === 'proven' && (
        <p>
          <Link className="textlink" href={`/provision?sel=${volumeId}`}>
            Open the volume
          </Link>
        </p>
      )}
      {evidenceCount > 0 && (
        <>
          <h3>Evidence</h3>
          {evidence}
        </>
      )}
      <h3>The plan</h3>
      <PlanView plan={change.plan} />
    </Margin>
  )
}
