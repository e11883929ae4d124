import type { Standing } from '@/core/telling'
import { rows, run, toJson, type Scope } from '../database'

const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString())

/** What stands for a rule, and what has just ended. */
export async function standingsOf(scope: Scope, ruleId: string): Promise<Standing[]> {
  const found = await rows<{
    readonly key: string
    readonly matter: Standing['matter']
    readonly since: Date
    readonly told_at: Date | null
    readonly gone_since: Date | null
    readonly returns: number
  }>(scope, 'select key, matter, since, told_at, gone_since, returns from told_matters where rule_id = $1', [ruleId])
  return found.map(({ key, matter, since, told_at, gone_since, returns }) => ({
    key,
    matter,
    since: since.getTime(),
    toldAt: told_at?.getTime() ?? null,
    goneSince: gone_since?.getTime() ?? null,
    returns,
  }))
}

/** Keeps what stands for a rule now; what is not among it goes, what is as it was is not written. */
export async function keepStandings(scope: Scope, ruleId: string, kept: readonly Standing[]): Promise<void> {
  const now = kept.map(({ key, matter, since, toldAt, goneSince, returns }) => ({
    key,
    matter,
    since: iso(since),
    told_at: iso(toldAt),
    gone_since: iso(goneSince),
    returns,
  }))
  await run(
    scope,
    `with now as (
       select * from jsonb_to_recordset($2::jsonb) as n(key text, matter jsonb, since timestamptz, told_at timestamptz, gone_since timestamptz, returns int)
     ), gone as (
       delete from told_matters where rule_id = $1 and key not in (select key from now)
     )
     insert into told_matters as kept (rule_id, key, matter, since, told_at, gone_since, returns)
     select $1, key, matter, since, told_at, gone_since, returns from now
     on conflict (rule_id, key) do update set matter = excluded.matter, told_at = excluded.told_at, gone_since = excluded.gone_since, returns = excluded.returns
       where (kept.matter, kept.told_at, kept.gone_since, kept.returns) is distinct from (excluded.matter, excluded.told_at, excluded.gone_since, excluded.returns)`,
    [ruleId, toJson(now)],
  )
}
