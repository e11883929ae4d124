import type { ToldMessage } from '@/core/views'
import { countAtStart, countWords } from '@/core/units'
import type { Gravity } from '../../parts/State'

/** How a message stands: it has been taken, it waits to be sent again, or it was given up. */
export function deliveryOf({ sentAt, nextAt, tries }: Pick<ToldMessage, 'sentAt' | 'nextAt' | 'tries'>): {
  readonly gravity: Gravity
  readonly words: string
} {
  if (sentAt !== null) return { gravity: 'fine', words: 'taken' }
  if (nextAt !== null)
    return tries === 0
      ? { gravity: 'note', words: 'on its way' }
      : { gravity: 'soon', words: `tried ${tries === 1 ? 'once' : `${tries} times`}` }
  return { gravity: 'now', words: 'given up' }
}

export const stateWords: Readonly<Record<ToldMessage['message']['state'], string>> = {
  begun: 'begun',
  ended: 'over',
  round: 'round',
  test: 'test',
}

/** What the page says first. */
export function tellingSentence(
  messages: readonly Pick<ToldMessage, 'sentAt' | 'nextAt' | 'tries'>[],
  counts: { readonly rules: number; readonly routes: number },
): { readonly first: string; readonly then: string } {
  if (counts.routes === 0)
    return { first: 'Nobody is told of anything yet.', then: 'Define a route, and a rule that tells there.' }
  const troubled = messages.filter(each => each.sentAt === null && each.tries > 0)
  const first =
    troubled.length > 0
      ? `${countAtStart(troubled.length, 'message has', 'messages have')} not been taken.`
      : messages.length === 0
        ? 'Nothing has been told yet.'
        : 'All messages have been taken.'
  return {
    first,
    then: `${countAtStart(counts.rules, 'rule tells', 'rules tell')} by ${countWords(counts.routes, 'route', 'routes')}.`,
  }
}
