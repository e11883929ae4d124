import { latencyState } from '@/core/classes'
import type { PromisedLine } from '@/core/views'
import { Link } from '../../parts/Link'
import { latencyWords } from '../performance/loadWords'

/** What is promised stands here in each line, of its whole width: what is slower reaches beyond it. */
const promiseAt = 0.7

const colours = { broken: 'var(--now)', 'at risk': 'var(--soon)', kept: 'var(--fine)' } as const

/** Volumes by how much of their promised latency they have used up: a bar each, beside the mark of what is promised. */
export const AgainstPromise = ({ lines }: { readonly lines: readonly PromisedLine[] }) => (
  <figure className="m-0">
    <h3>
      Slowest against promise <span>P95, last 24 h</span>
    </h3>
    {lines.length === 0 && (
      <p className="mt-0 text-second">
        Nothing promises how fast it answers.{' '}
        <Link className="textlink" href="/provision/classes">
          A service class
        </Link>{' '}
        does.
      </p>
    )}
    <ul className="m-0 list-none p-0">
      {lines.map(line => (
        <li key={line.id} className="grid grid-cols-[minmax(0,10rem)_minmax(0,1fr)_7rem] items-center gap-x-2 py-[5px]">
          <Link
            data-row
            href={`/watch/performance?sel=${line.id}`}
            className="truncate no-underline"
            data-hint={line.name}
          >
            {line.name}
          </Link>
          <span aria-hidden className="relative h-[14px]">
            <i className="absolute inset-y-px left-0 border border-rule" style={{ width: `${promiseAt * 100}%` }} />
            <i
              className="absolute inset-y-px left-0"
              style={{
                width: `${Math.min(1, usedOf(line) * promiseAt) * 100}%`,
                background: colours[latencyState(line.p95Seconds, line.promisedSeconds)],
              }}
            />
            <i className="absolute -inset-y-[2px] w-[2px] bg-ink" style={{ left: `${promiseAt * 100}%` }} />
          </span>
          <span className="mono text-right whitespace-nowrap">{ofWords(line)}</span>
        </li>
      ))}
    </ul>
  </figure>
)

const usedOf = ({ p95Seconds, promisedSeconds }: PromisedLine) => p95Seconds / promisedSeconds

/** `3.18 of 4 ms`. */
const ofWords = ({ p95Seconds, promisedSeconds }: PromisedLine) =>
  `${latencyWords(p95Seconds).replace(/ ms$/, '')} of ${Number((promisedSeconds * 1000).toFixed(2))} ms`
