import type { Catalogue, Estate, NameAnswer, PathProbe, SignedException } from '@/core/estate'
import { rows, type Scope } from '../database'
import { fromRow, type RowOf } from './fromRow'

type Dated<T, K extends string> = Omit<RowOf<T>, K> & { readonly [key in K]: Date }
const mostAnswers = 5000

/** What is known of rows of nodes beside their inventory: few in any estate, and read whole. */
export async function rowRecords(
  scope: Scope,
): Promise<Pick<Estate, 'pathProbes' | 'nameAnswers' | 'exceptions' | 'catalogues'>> {
  const probes = await rows<Dated<PathProbe, 'at'>>(scope, 'select system_id, at, wanted_mtu, answers from path_probes')
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
    pathProbes: probes.map(each => fromRow<PathProbe>(each)),
    nameAnswers: answers.map(each => fromRow<NameAnswer>(each)),
    exceptions: exceptions.map(each => fromRow<SignedException>(each)),
    catalogues: catalogues.map(each => each.body),
  }
}
