import { cast, col, fn, Op, where as holds, type WhereOptions } from 'sequelize'
import type { ChangeState } from '@/core/plan'
import type { ChangeRecord, EvidenceEntry, JournalEntry } from '@/core/views'
import type { Scope } from '../database'
import { inside, plain } from '../model'
import { changeModel, evidenceModel, journalModel, outcomeModel, type KeptChange } from './models'

/** What a record of a change is made of. */
const recorded = [
  'id',
  'number',
  'kind',
  'state',
  'title',
  'intent',
  'plan',
  'planDigest',
  'edit',
  'editedBy',
  'differences',
  'madeBy',
  'madeAt',
  'carriedOutAt',
  'carriedOutEstateAt',
  'endedAt',
  'endedEstateAt',
  'isStopWanted',
  'isUndoWanted',
  'facts',
  'refusal',
  'stands',
  'reverses',
  'tookSeconds',
] as const satisfies readonly (keyof KeptChange)[]

const instant = (date: Date | null) => date?.toISOString() ?? null

const toChange = (found: Pick<KeptChange, (typeof recorded)[number]>): ChangeRecord => ({
  ...found,
  madeAt: found.madeAt.toISOString(),
  carriedOutAt: instant(found.carriedOutAt),
  carriedOutEstateAt: instant(found.carriedOutEstateAt),
  endedAt: instant(found.endedAt),
  endedEstateAt: instant(found.endedEstateAt),
})

/** @param isLocked whether nothing else may change it until the transaction ends */
export async function changeById(scope: Scope, id: string, isLocked = false): Promise<ChangeRecord | undefined> {
  const found = await changeModel(scope.database).findByPk(id, {
    attributes: [...recorded],
    ...inside(scope),
    lock: isLocked,
  })
  return found === null ? undefined : toChange(plain(found))
}

const leftDays = 7

/** The latest draft of a kind that somebody has left within a week, about all of some objects. */
export async function leftDraft(
  scope: Scope,
  kind: string,
  editedBy: string,
  objectIds: readonly string[],
): Promise<ChangeRecord | undefined> {
  const since = new Date(Date.now() - leftDays * 86_400_000)
  const about = objectIds.map(id => holds(fn('strpos', cast(col('intent'), 'text'), id), Op.gt, 0))
  const found = await changeModel(scope.database).findOne({
    attributes: [...recorded],
    where: {
      state: ['draft', 'checked'],
      kind,
      editedBy,
      revisedAt: { [Op.gt]: since },
      [Op.and]: about,
    },
    order: [['revisedAt', 'DESC']],
    ...inside(scope),
  })
  return found === null ? undefined : toChange(plain(found))
}

/** The latest changes, newest first. @param before only those with a lower number, for the next page */
export async function latestChanges(
  scope: Scope,
  limit: number,
  { states, before }: { readonly states?: readonly ChangeState[]; readonly before?: number } = {},
): Promise<ChangeRecord[]> {
  const where: WhereOptions<KeptChange> = {
    ...(states === undefined ? {} : { state: [...states] }),
    ...(before === undefined ? {} : { number: { [Op.lt]: before } }),
  }
  const found = await changeModel(scope.database).findAll({
    attributes: [...recorded],
    where,
    order: [['number', 'DESC']],
    limit,
    ...inside(scope),
  })
  return found.map(each => toChange(plain(each)))
}

export async function journalOf(scope: Scope, changeId: string): Promise<JournalEntry[]> {
  const found = await journalModel(scope.database).findAll({
    attributes: ['id', 'stepIndex', 'event', 'at', 'estateAt', 'doneRatio', 'words', 'facts'],
    where: { changeId },
    order: [['id', 'ASC']],
    ...inside(scope),
  })
  return found.map(plain).map(each => ({
    id: Number(each.id),
    stepIndex: each.stepIndex,
    event: each.event,
    at: each.at.toISOString(),
    estateAt: each.estateAt.toISOString(),
    doneRatio: each.doneRatio,
    words: each.words,
    facts: each.facts,
  }))
}

export async function evidenceOf(scope: Scope, changeId: string): Promise<EvidenceEntry[]> {
  const found = await evidenceModel(scope.database).findAll({
    attributes: ['claim', 'holds', 'measured', 'at', 'attempt'],
    where: { changeId },
    order: [['id', 'ASC']],
    ...inside(scope),
  })
  return found.map(plain).map(({ claim, holds, measured, at, attempt }) => ({
    claim,
    holds,
    measured,
    at: at.toISOString(),
    attempt,
  }))
}

export const runningCount = (scope: Scope): Promise<number> =>
  changeModel(scope.database).count({ where: { state: 'running' }, ...inside(scope) })

/** Forecasts of ended changes beside what happened, latest first; for the hit rate. */
export async function forecastOutcomes(
  scope: Scope,
  limit = 500,
): Promise<
  { readonly kind: string; readonly p10: number; readonly p50: number; readonly p90: number; readonly actual: number }[]
> {
  const found = await outcomeModel(scope.database).findAll({ order: [['endedAt', 'DESC']], limit, ...inside(scope) })
  return found.map(plain).map(({ kind, p10Seconds: p10, p50Seconds: p50, p90Seconds: p90, actualSeconds: actual }) => ({
    kind,
    p10,
    p50,
    p90,
    actual,
  }))
}
