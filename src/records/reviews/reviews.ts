import { reviewLines, type ReviewedLine } from '@/core/access'
import type { Behind, Review, ReviewList, ReviewPage } from '@/core/views'
import { DataTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { rows, type Scope } from '../database'
import { kept, modelFor } from '../model'
import { object, objectCount, objects } from '../objects'
import { ShareChanged } from './errors'

interface Kept {
  readonly id: string
  readonly shareId: string
  readonly at: Date
  readonly madeBy: string
  readonly note: string
  readonly lines: readonly ReviewedLine[]
}
const reviewModel = modelFor<Kept>('reviews', {
  id: kept.id,
  shareId: { type: DataTypes.UUID, allowNull: false },
  at: kept.instant,
  madeBy: kept.text,
  note: kept.text,
  lines: { type: DataTypes.JSONB, allowNull: false },
})
const plain = ({ at, ...rest }: Kept): Review => ({ ...rest, at: at.toISOString() })

const mostShares = 500
const mostReviews = 20
const mostNames = 12

/** Shares by name, each with its rights and its latest review. */
export async function reviewList(scope: Scope): Promise<ReviewList> {
  const shares = await objects(scope, 'shares', { order: [['name', 'ASC']], limit: mostShares })
  const found = await rows<{
    readonly id: string
    readonly shareId: string
    readonly at: Date
    readonly madeBy: string
    readonly note: string
    readonly lines: readonly ReviewedLine[]
  }>(
    scope,
    `select distinct on (share_id) id, share_id as "shareId", at, made_by as "madeBy", note, lines from reviews
     where share_id = any($1::uuid[]) order by share_id, at desc`,
    [shares.map(({ id }) => id)],
  )
  const latest = new Map(found.map(each => [each.shareId, plain(each)]))
  return {
    shares: shares.map(share => ({ share, lines: reviewLines(share), latest: latest.get(share.id) ?? null })),
    shareCount: await objectCount(scope, 'shares', {}),
  }
}

/** The latest reviews of a share, the latest first. */
export async function reviewsOf({ database, transaction }: Scope, shareId: string): Promise<Review[]> {
  const found = await reviewModel(database).findAll({
    where: { shareId },
    order: [['at', 'DESC']],
    limit: mostReviews,
    transaction: transaction ?? null,
  })
  return found.map(each => plain(each.get({ plain: true })))
}

/** All rights of a share with who is behind each; undefined where it is not there. */
export async function reviewPage(scope: Scope, shareId: string): Promise<ReviewPage | undefined> {
  const share = await object(scope, 'shares', shareId)
  if (share === undefined) return undefined
  return {
    share,
    lines: reviewLines(share),
    behind: await behind(scope, [...new Set(share.grants.map(({ who }) => who))]),
    reviews: await reviewsOf(scope, shareId),
  }
}

/** Who is behind people and groups: those whose accounts can sign in. A ring of groups ends by itself. */
async function behind(scope: Scope, whoever: readonly string[]): Promise<Behind[]> {
  const found = await rows<{ readonly who: string; readonly people: number; readonly names: readonly string[] }>(
    scope,
    `with recursive below as (
       select who, who as id from unnest($1::text[]) as who
       union
       select below.who, p.durable_id from below
         join principals p on p.member_of @> jsonb_build_array(below.id) and p.sort = 'group' and p.gone_since is null),
     people as (
       select distinct below.who, p.id, p.name from below
         join principals p on (p.durable_id = below.id or p.member_of @> jsonb_build_array(below.id))
           and p.sort = 'person' and p.gone_since is null and not p.is_disabled
       union
       select '*', id, name from principals where '*' = any($1::text[]) and sort = 'person' and gone_since is null and not is_disabled)
     select who, count(*)::int as people, (array_agg(name order by name))[1:${mostNames}] as names from people group by who`,
    [whoever],
  )
  return found
}

/**
 * Keeps what was decided of each right of a share.
 * @throws {ShareChanged} where its rights are no longer those that were looked at
 */
export async function keepReview(
  scope: Scope,
  review: Omit<Review, 'id' | 'at' | 'lines'> & { readonly verdicts: Readonly<Record<string, 'stays' | 'goes'>> },
): Promise<Review | undefined> {
  const { shareId, madeBy, note, verdicts } = review
  const share = await object(scope, 'shares', shareId)
  if (share === undefined) return undefined
  const now = reviewLines(share)
  const isSame = now.length === Object.keys(verdicts).length && now.every(({ key }) => Object.hasOwn(verdicts, key))
  if (!isSame) throw new ShareChanged(share.name)
  const lines = now.map(
    (line): ReviewedLine => ({
      ...line,
      verdict: verdicts[line.key] === 'goes' ? 'goes' : 'stays',
    }),
  )
  const { database, transaction } = scope
  const made = await reviewModel(database).create(
    { id: uuid(), shareId, madeBy, note, lines },
    { transaction: transaction ?? null, returning: true },
  )
  await made.reload({ transaction: transaction ?? null })
  return plain(made.get({ plain: true }))
}
