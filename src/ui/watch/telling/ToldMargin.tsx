import Link from 'next/link'
import type { ToldMessage } from '@/core/views'
import { Margin } from '../../frame'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { deliveryOf } from './toldWords'

/** One message: what it says, what left, and what was answered. */
export function ToldMargin({ told }: { readonly told: ToldMessage }) {
  const { message, sentAt, tries, nextAt, sent, answer, failedWhy } = told
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
      <table className="plain">
        <tbody>
          {sentAt !== null && (
            <tr>
              <td className="text-second">Taken</td>
              <td className="number">
                <Moment at={sentAt} />
              </td>
            </tr>
          )}
          <tr>
            <td className="text-second">Tries</td>
            <td className="number">{tries}</td>
          </tr>
          {nextAt !== null && (
            <tr>
              <td className="text-second">Next</td>
              <td className="number">
                <Moment at={nextAt} />
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {failedWhy !== null && <p className="text-second">{failedWhy}</p>}
      {sent !== null && <Bytes title="What was sent" text={sent} />}
      {answer !== null && <Bytes title="What was answered" text={answer} />}
    </Margin>
  )
}

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
