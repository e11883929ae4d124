import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { plannedBy, score } from '@/core/transfer'
import { countWords } from '@/core/units'
import { changeLines, forecastOutcomes, journalOf } from '@/records/changes'
import { ChangeLines } from '@/ui/changes'
import { Margin } from '@/ui/frame'

/** What runs, what was changed last, and how good forecasts were. */
export async function TodayMargin() {
  const { scope } = await reader()
  const [running, latest, outcomes] = await Promise.all([
    changeLines(scope, 12, { state: 'running' }),
    changeLines(scope, 12),
    forecastOutcomes(scope),
  ])
  return (
    <Margin>
      <h2>What runs</h2>
      {running.length === 0 && <p className="text-second">Nothing runs now.</p>}
      {running.map(({ id, title }) => (
        <Running key={id} id={id} title={title} />
      ))}
      <h3>
        Latest changes{' '}
        <Link href="/changes" className="textlink">
          all
        </Link>
      </h3>
      <ChangeLines
        changes={latest.filter(change => change.state !== 'running').slice(0, 7)}
        none="No change has been made yet."
      />
      <h3>How good forecasts were</h3>
      <p className="mt-0">{forecastWords(outcomes)}</p>
    </Margin>
  )
}

async function Running({ id, title }: { readonly id: string; readonly title: string }) {
  const progress = (await journalOf((await reader()).scope, id)).at(-1)
  return (
    <div className="border-b border-rule-fine py-2">
      <Link data-row href={`/changes/${id}`} className="font-semibold no-underline">
        {title}
      </Link>
      <div className="text-second">{progress?.words ?? 'beginning'}</div>
      <progress className="h-2 w-full" max={1} value={progress?.doneRatio ?? 0} aria-label={`Progress of ${title}`} />
    </div>
  )
}

function forecastWords(outcomes: Parameters<typeof score>[0]): string {
  const jobs = plannedBy(outcomes)
  const { coverage, medianAbsolutePercentageError } = score(jobs)
  return coverage === null || medianAbsolutePercentageError === null
    ? 'No change that took ten seconds or longer has ended yet.'
    : `Of ${countWords(jobs.length, 'change that took', 'changes that took')} ten seconds or longer, or were to, ${Math.round(coverage * 100)}% ended within their range; 80% should. Half missed by less than ${Math.round(medianAbsolutePercentageError * 100)}%.`
}
