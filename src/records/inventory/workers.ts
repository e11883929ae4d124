import { row, run, type Scope } from '../database'

/** Says that a worker runs; what has not said so for an hour is forgotten. */
export async function noteWorker(scope: Scope, id: string): Promise<void> {
  await run(scope, 'insert into workers (id) values ($1) on conflict (id) do update set seen_at = now()', [id])
  await run(scope, `delete from workers where seen_at < now() - interval '1 hour'`)
}

export const withdrawWorker = (scope: Scope, id: string) => run(scope, 'delete from workers where id = $1', [id])

/** Seconds since a worker last said that it runs; undefined where none ever has. */
export async function workerSilentSeconds(scope: Scope): Promise<number | undefined> {
  const found = await row<{ readonly seconds: number | null }>(
    scope,
    'select extract(epoch from now() - max(seen_at))::float8 as seconds from workers',
  )
  return found?.seconds ?? undefined
}
