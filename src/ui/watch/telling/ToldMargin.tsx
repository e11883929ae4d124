import { Link } from '../../parts/Link'
import type { ToldMessage } from '@/core/views'
import { Margin } from '../../frame'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { deliveryOf } from './toldWords'

/** One message: what it says, what left, and what was answered. */
export function ToldMargin({ told }: { readonly told: ToldMessage }) {
  const { message, sent, answer, failedWhy } = told
  const { gravity, words } = deliveryOf(told)
  return (
    <Margin
      foot={
        <Link className="button quiet" href={message.href}>
          What it is about
        </Link>
      }
    >
      <h2 className="break-words">{message.subject}</h2>
      {message.lines.map(line => (
        <p key={line} className="mt-1 mb-0">
          {line}
        </p>
      ))}
      <h3>To {told.routeName ?? 'a route that is gone'}</h3>
      <State gravity={gravity}>{words}</State>
      <Tries told={told} />
      {failedWhy !== null && <p className="text-second">{failedWhy}</p>}
      {sent !== null && <Bytes title="What was sent" text={sent} />}
      {answer !== null && <Bytes title="What was answered" text={answer} />}
    </Margin>
  )
}

const Tries = ({ told: { sentAt, tries, nextAt } }: { readonly told: ToldMessage }) => (
  <table className="plain">
    <tbody>
      {sentAt !== null && <MomentRow words="Taken" at={sentAt} />}
      <tr>
        <td className="text-second">Tries</td>
        <td className="number">{tries}</td>
      </tr>
      {nextAt !== null && <MomentRow words="Next" at={nextAt} />}
    </tbody>
  </table>
)

const MomentRow = ({ words, at }: { readonly words: string; readonly at: string }) => (
  <tr>
    <td className="text-second">{words}</td>
    <td className="number">
      <Moment at={at} />
    </td>
  </tr>
)

const Bytes = ({ title, text }: { readonly title: string; readonly text: string }) => (
  <>
    <h3>{title}</h3>
    <pre
      className="mono m-0 max-h-[260px] overflow-auto text-[12px] break-words whitespace-pre-wrap"
      tabIndex={0}
      aria-label={title}
    >
      {text}
    </pre>
  </>
)
