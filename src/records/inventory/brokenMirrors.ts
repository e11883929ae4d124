import type { BrokenMirror } from '@/core/findings'
import { rows, type Scope } from '../database'

/** Volumes of a system whose mirrors on other systems are broken. */
export const brokenMirrors = (scope: Scope, systemId: string): Promise<BrokenMirror[]> =>
  rows(
    scope,
    // By the index volumes_by_broken_mirror. Two systems may state one serial: each mirror stands once all the same.
    `select id as "volumeId", name,
       (select systems.name from systems where serial = mirror->>'partner' order by systems.name limit 1) as "partnerName"
     from volumes where system_id = $1 and mirror->>'state' = 'broken' and mirror->>'role' = 'source'
       and missing_since is null and state = 'in use'
     order by name, id`,
    [systemId],
  )
