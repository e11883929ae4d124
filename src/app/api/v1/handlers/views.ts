import type { Asked } from '@/app/server/answer'
import { AccessRefused, NotThere } from '@/app/server/errors'
import { dropView, keepView, viewsAt } from '@/records/views'

const what = 'The view was not saved.'

/** Named views of lists. */
export const viewHandlers = {
  listViews: async ({ query, scope }: Asked) => ({ items: await viewsAt(scope, String(query['path'])) }),
  async keepView({ body, who, noted }: Asked) {
    const name = String(body['name']).trim()
    const view = { path: String(body['path']), name, query: String(body['query']), madeBy: who.name }
    return noted({ action: 'view.saved', subject: `view ${name}`, detail: { path: view.path } }, async inside => {
      const kept = await keepView(inside, view)
      if (kept === 'name taken')
        throw new AccessRefused(
          409,
          'views.name-taken',
          what,
          `A view of this list is called ${name} already.`,
          'Choose another name.',
        )
      if (kept === 'too many')
        throw new AccessRefused(
          409,
          'views.too-many',
          what,
          'This list has as many views as can be kept.',
          'Drop one that nobody needs.',
        )
      return kept
    })
  },
  async dropView({ id, noted }: Asked) {
    await noted({ action: 'view.dropped', subject: `view ${id}` }, async inside => {
      if ((await dropView(inside, id)) === undefined) throw new NotThere('The view')
    })
  },
}
