import type { Finding } from '@/core/findings'
import { run, toJson, type Scope } from '../database'

/**
 * Notes what is found now: what is new stands since now, what is no longer found is cleared now, and the rest keeps its beginning.
 * @param source what has looked: it clears only what it has found itself
 * @param findings of one system, all that the source has found
 */
export async function keepFindings(
  scope: Scope,
  systemId: string,
  source: 'row' | 'edge' | 'reading' | 'clock' | 'hosts' | 'files' | 'drift' | 'drives',
  findings: readonly Finding[],
): Promise<void> {
  const list = toJson(findings.map(finding => ({ key: finding.key, body: finding })))
  await run(
    scope,
    `with found as (select r.key, r.body from jsonb_to_recordset($2::jsonb) as r(key text, body jsonb)),
     gone as (
       update findings set cleared_at = now() where system_id = $1 and source = $3 and cleared_at is null
         and key not in (select key from found))
     insert into findings (key, system_id, source, body) select key, $1, $3, body from found
     on conflict (key) where cleared_at is null do update set body = excluded.body where findings.body is distinct from excluded.body`,
    [systemId, list, source],
  )
}
