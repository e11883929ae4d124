import { freshDatabase } from '@/records/testing'
import { Leases } from './Leases'

test('asked for many things at once it holds all of them by one connection, and gives all back with it', async () => {
  const { database, url, close } = await freshDatabase()
  const [one, other] = [new Leases(url), new Leases(url)]
  const systems = ['0194f3a0-0000-7000-8000-000000000001', '0194f3a0-0000-7000-8000-000000000002']
  const all = [{ kind: 'clock' }, { kind: 'metrics' }, ...systems.map(id => ({ kind: 'system', id }) as const)] as const
  try {
    expect((await Promise.all(all.map(each => one.take(each)))).every(lease => lease !== undefined)).toBe(true)
    const [found] = await database.query(
      `select count(*)::int as count from pg_stat_activity where application_name = 'wendrel leases' and datname = current_database()`,
    )
    expect(found).toEqual([{ count: 1 }])
    expect(await Promise.all(all.map(each => other.take(each)))).toEqual(all.map(() => undefined))
    await one.close()
    expect((await Promise.all(all.map(each => other.take(each)))).every(lease => lease !== undefined)).toBe(true)
  } finally {
    await Promise.all([one.close(), other.close()])
    await close()
  }
})
