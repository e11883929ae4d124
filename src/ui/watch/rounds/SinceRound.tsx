import { sinceRoundWords, type SinceRound as Since } from '@/core/today'
import { Ago } from '../../parts/Ago'

/** What has changed since somebody last went through the estate, and what they left to say. */
export function SinceRound({ since }: { readonly since: Since }) {
  const { round } = since
  const words = sinceRoundWords(since)
  return (
    <p className="advice">
      Since the round of {round.madeBy}, <Ago at={round.at} />: {words ?? 'nothing has become otherwise'}.
      {round.note !== '' && <span className="block text-second">“{round.note}”</span>}
    </p>
  )
}
