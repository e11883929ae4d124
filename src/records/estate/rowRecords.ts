import type { Catalogue, Estate, NameAnswer, PathProbe, SignedException } from '@/core/estate'
import { rows, type Scope } from '../database'
import { fromRow, type RowOf } from './fromRow'
import type { Reading } from './unchanged'

type Dated<T, K extends string> = Omit<RowOf<T>, K> & { readonly [key in K]: Date }
const mostAnswers = 5000

type RowRecords = Pick<Estate, 'pathProbes' | 'nameAnswers' | 'exceptions' | 'catalogues'>

async function pathProbes(scope: Scope): Promise<PathProbe[]> {
  const found = await rows<Dated<PathProbe, 'at'>>(scope, 'select system_id, at, wanted_mtu, answers from path_probes')
  return found.map(each => fromRow<PathProbe>(each))
}

async function nameAnswers(scope: Scope): Promise<NameAnswer[]> {
  const found = await rows<Dated<NameAnswer, 'at'>>(
    scope,
    'select query, kind, answers, why, at from name_answers order by at desc limit $1',
    [mostAnswers],
  )
  return found.map(each => fromRow<NameAnswer>(each))
}

async function exceptions(scope: Scope): Promise<SignedException[]> {
  const found = await rows<Dated<SignedException, 'signed_at' | 'until'>>(
    scope,
    "select id, finding_key, gravity, reason, signed_by, signed_at, until from signed_exceptions where until > now() - interval '90 days' order by until desc",
  )
  return found.map(each => fromRow<SignedException>(each))
}

const catalogues = async (scope: Scope): Promise<Catalogue[]> =>
  (
    await rows<{ readonly body: Catalogue }>(
      scope,
      'select distinct on (maker) body from catalogues order by maker, issued_at desc, imported_at desc',
    )
  ).map(each => each.body)

/** What is known of rows of nodes beside their inventory, each by the table that it stands in: few in any estate, and read whole. */
export const rowReadings = (
  scope: Scope,
): { readonly [Name in keyof RowRecords]: Reading<RowRecords[Name][number]> } => ({
  pathProbes: { table: 'path_probes', isLocated: false, read: () => pathProbes(scope) },
  nameAnswers: { table: 'name_answers', isLocated: false, read: () => nameAnswers(scope) },
  exceptions: { table: 'signed_exceptions', isLocated: false, read: () => exceptions(scope) },
  catalogues: { table: 'catalogues', isLocated: false, read: () => catalogues(scope) },
})

/** What was last probed in the network of nodes, and what names were answered. */
export const probesAndNames = async (scope: Scope): Promise<Pick<RowRecords, 'pathProbes' | 'nameAnswers'>> => ({
  pathProbes: await pathProbes(scope),
  nameAnswers: await nameAnswers(scope),
})
