import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { wholeNumber } from '@/core/input'
import { changeStates, type ChangeState as ChangeStateName } from '@/core/plan'
import { countAtStart, formatSeconds, formatSecondsRange } from '@/core/units'
import { tookSeconds, type ChangeSummary } from '@/core/views'
import { changeCount, changeSummaries, runningCount } from '@/records/changes'
import { ChangeState } from '@/ui/changes'
import { Page as Frame, Title } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'
import { Table, type Column } from '@/ui/parts/Table'

export const metadata = { title: 'Changes' }

const pageChanges = 60

const tookWords = (change: ChangeSummary) => {
  const seconds = tookSeconds(change)
  return seconds === null || change.state === 'running' ? '' : formatSeconds(seconds)
}

type Search = Promise<{ readonly state?: string; readonly before?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const { state, before } = await onlyTexts(searchParams)
  const from = wholeNumber(before)
  const wanted = changeStates.find(each => each === state)
  const { scope } = await reader()
  const [changes, running, total] = await Promise.all([
    changeSummaries(scope, pageChanges, {
      ...(wanted === undefined ? {} : { states: [wanted] }),
      ...(from === undefined ? {} : { before: from }),
    }),
    runningCount(scope),
    changeCount(scope, wanted === undefined ? {} : { states: [wanted] }),
  ])
  const last = changes.at(-1)
  const older = { ...(wanted === undefined ? {} : { state: wanted }), before: `${last?.number ?? ''}` }
  return (
    <Frame>
      <Title words="Changes">
        <States wanted={wanted} />
      </Title>
      <p className="sentence">
        <b>{running === 0 ? 'Nothing runs now.' : `${countAtStart(running, 'change runs', 'changes run')} now.`}</b>{' '}
        {changes.length === 0 ? 'No change is in this state.' : 'Each keeps its plan, what happened, and the evidence.'}
      </p>
      <Table rows={changes} keyOf={change => change.id} columns={columns} />
      <p className="text-second">
        {countAtStart(total, 'change', 'changes')}
        {wanted === undefined ? '' : ` ${wanted}`} in all
        {changes.length < total && `, of which ${changes.length} are shown`}.{' '}
        {changes.length === pageChanges && (
          <Link className="textlink" href={`/changes?${new URLSearchParams(older)}`}>
            Older ones
          </Link>
        )}
      </p>
    </Frame>
  )
}

const States = ({ wanted }: { readonly wanted: ChangeStateName | undefined }) => (
  <nav aria-label="States" className="flex flex-wrap gap-4">
    {[undefined, ...changeStates].map(each => (
      <Link
        key={each ?? 'all'}
        href={each === undefined ? '/changes' : `/changes?state=${each}`}
        aria-current={wanted === each ? 'page' : undefined}
        className={`no-underline ${wanted === each ? 'border-b border-ink' : 'text-second hover:text-ink'}`}
      >
        {each ?? 'all'}
      </Link>
    ))}
  </nav>
)

const columns: readonly Column<ChangeSummary>[] = [
  { head: 'No.', cell: change => change.number, isNumber: true },
  {
    head: 'Change',
    className: 'max-w-[420px]',
    cell: ({ id, title }) => (
      <Link data-row href={`/changes/${id}`} className="block truncate font-semibold no-underline" data-hint={title}>
        {title}
      </Link>
    ),
  },
  { head: 'State', cell: change => <ChangeState state={change.state} /> },
  { head: 'By', cell: change => change.madeBy },
  { head: 'Made', cell: change => <Ago at={change.madeAt} />, className: 'whitespace-nowrap text-second' },
  {
    head: 'Forecast',
    cell: ({ forecast }) => formatSecondsRange(forecast.p10Seconds, forecast.p90Seconds),
    isNumber: true,
    className: 'text-second',
  },
  { head: 'Took', cell: tookWords, isNumber: true },
  { head: 'What stands', cell: change => change.refusal?.why ?? change.stands ?? '', className: 'text-second' },
]
