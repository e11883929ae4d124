import type { Asked } from '@/app/server/answer'
import { NotThere } from '@/app/server/errors'
import { keepReview, reviewsOf } from '@/records/reviews'

/** Looks at the rights of shares. */
export const reviewHandlers = {
  listReviews: async ({ scope, id }: Asked) => ({ items: await reviewsOf(scope, id) }),
  async keepReview({ body, id, who, noted }: Asked) {
    // The contract lets through nothing but verdicts.
    const verdicts = body['verdicts'] as Readonly<Record<string, 'stays' | 'goes'>>
    const goes = Object.values(verdicts).filter(each => each === 'goes').length
    const note = String(body['note']).trim()
    return noted({ action: 'review.kept', subject: `share ${id}`, detail: { note, goes } }, async inside => {
      const made = await keepReview(inside, { shareId: id, madeBy: who.name, note, verdicts })
      if (made === undefined) throw new NotThere('The share')
      return made
    })
  },
}
