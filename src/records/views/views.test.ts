import { freshDatabase } from '../testing'
import { dropView, keepView, viewsAt } from '.'

test('a view is kept under a name that is its own within its list, found there, and dropped once', async () => {
  const { database, close } = await freshDatabase()
  try {
    const scope = { database }
    const view = { path: '/provision', name: 'Thick', query: 'sort=size', madeBy: 'keeper' }
    const kept = await keepView(scope, view)
    expect(kept).toMatchObject(view)
    expect(await keepView(scope, view)).toBe('name taken')
    expect(await keepView(scope, { ...view, path: '/build/ports' })).toMatchObject({ path: '/build/ports' })
    expect(await viewsAt(scope, '/provision')).toEqual([kept])
    expect(await viewsAt(scope, '/none')).toEqual([])
    const { id } = kept as { id: string }
    expect(await dropView(scope, id)).toEqual(kept)
    expect(await dropView(scope, id)).toBeUndefined()
    for (let index = 0; index < 200; index += 1) await keepView(scope, { ...view, name: `View ${index}` })
    expect(await keepView(scope, { ...view, name: 'One more' })).toBe('too many')
  } finally {
    await close()
  }
})
