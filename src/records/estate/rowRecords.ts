import type { Catalogue, Estate, NameAnswer, PathProbe, SignedException } from '@/core/estate'
import { rows, type Scope } from '../database'
import { fromRow, type RowOf } from './fromRow'

type Dated<T, K extends string> = Omit<RowOf<T>, K> & { readonly [key in K]: Date }
const mostAnswers = 5000

/** The latest of each system, as it was read last: of a large row it is thousands of answers, and every plan asks for it. */
const readBefore = new Map<string, PathProbe>()

async function pathProbes(scope: Scope): Promise<PathProbe[]> {
  const latest = await rows<{ readonly system_id: string; readonly at: Date; readonly place: string }>(
    scope,
    // Where a row stands in its table is another place once it has been written anew.
    'select system_id, at, ctid::text || xmin::text as place from path_probes',
  )
  const found: PathProbe[] = []
  for (const { system_id, at, place } of latest) {
    const mark = `${system_id} ${at.toISOString()} ${place}`
    const known = readBefore.get(mark)
    if (known !== undefined) {
      found.push(known)
      continue
    }
    const [read] = await rows<Dated<PathProbe, 'at'>>(
      scope,
      'select system_id, at, wanted_mtu, answers from path_probes where system_id = $1',
      [system_id],
    )
    if (read === undefined) continue
    const probe = fromRow<PathProbe>(read)
    for (const key of readBefore.keys()) if (key.startsWith(`${system_id} `)) readBefore.delete(key)
    readBefore.set(mark, probe)
    found.push(probe)
  }
  return found
}

/** What is known of rows of nodes beside their inventory: few in any estate, and read whole. */
export async function rowRecords(
  scope: Scope,
): Promise<Pick<Estate, 'pathProbes' | 'nameAnswers' | 'exceptions' | 'catalogues'>> {
  const probes = await pathProbes(scope)
  const answers = await rows<Dated<NameAnswer, 'at'>>(
    scope,
    'select query, kind, answers, why, at from name_answers order by at desc limit $1',
    [mostAnswers],
  )
  const exceptions = await rows<Dated<SignedException, 'signed_at' | 'until'>>(
    scope,
    "select id, finding_key, reason, signed_by, signed_at, until from signed_exceptions where until > now() - interval '90 days' order by until desc",
  )
  const catalogues = await rows<{ readonly body: Catalogue }>(
    scope,
    'select distinct on (maker) body from catalogues order by maker, issued_at desc, imported_at desc',
  )
  return {
    pathProbes: probes,
    nameAnswers: answers.map(each => fromRow<NameAnswer>(each)),
    exceptions: exceptions.map(each => fromRow<SignedException>(each)),
    catalogues: catalogues.map(each => each.body),
  }
}
