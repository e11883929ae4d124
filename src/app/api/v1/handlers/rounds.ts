import type { Asked } from '@/app/server/answer'
import { keepRound, rounds } from '@/records/rounds'

/** The daily look at the estate. */
export const roundHandlers = {
  listRounds: async ({ scope }: Asked) => ({ items: await rounds(scope) }),
  async keepRound({ body, who, noted }: Asked) {
    const note = String(body['note']).trim()
    return noted({ action: 'round.done', subject: 'the round', detail: { note } }, inside =>
      keepRound(inside, who.name, note),
    )
  },
}
