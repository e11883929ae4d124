import { cast, col, fn, literal, Op, where as holds, type WhereOptions } from 'sequelize'
import type { ChangeState } from '@/core/plan'
import type { ChangeRecord, ChangeSummary, EvidenceEntry, JournalEntry } from '@/core/views'
import type { Scope } from '../database'
import { remembered } from '../memory'
import { inside, plain } from '../model'
import { changeModel, evidenceModel, journalModel, outcomeModel, type Instants, type KeptChange } from './models'

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

/** With its instants as text. */
const toText = <Found extends Pick<KeptChange, Instants>>(found: Found) => ({
  ...found,
  madeAt: found.madeAt.toISOString(),
  carriedOutAt: instant(found.carriedOutAt),
  carriedOutEstateAt: instant(found.carriedOutEstateAt),
  endedAt: instant(found.endedAt),
  endedEstateAt: instant(found.endedEstateAt),
})
const toChange = (found: Pick<KeptChange, (typeof recorded)[number]>): ChangeRecord => toText(found)

/** @param isLocked whether nothing else may change it until the transaction ends */
export async function changeById(scope: Scope, id: string, isLocked = false): Promise<ChangeRecord | undefined> {
  const found = await changeModel(scope.database).findByPk(id, {
    attributes: [...recorded],
    ...inside(scope),
    lock: isLocked,
  })
  return found === null ? undefined : toChange(plain(found))
}

/** What is asked of a draft before it is altered: its plan may be long, and is not read for that. Nothing else may change it until the transaction ends. */
export async function draftHead(
  scope: Scope,
  id: string,
): Promise<Pick<ChangeRecord, 'kind' | 'state' | 'title' | 'edit' | 'editedBy'> | undefined> {
  const found = await changeModel(scope.database).findByPk(id, {
    attributes: ['kind', 'state', 'title', 'edit', 'editedBy'],
    ...inside(scope),
    lock: true,
  })
  return found === null ? undefined : plain(found)
}

const besideItsPlan = recorded.filter(each => each !== 'intent' && each !== 'plan')

/** A change whose intent and plan have just been written, which are not read back. */
export async function changeWith(
  scope: Scope,
  id: string,
  written: Pick<ChangeRecord, 'intent' | 'plan'>,
): Promise<ChangeRecord | undefined> {
  const found = await changeModel(scope.database).findByPk(id, { attributes: [...besideItsPlan], ...inside(scope) })
  return found === null ? undefined : toChange({ ...plain(found), ...written })
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

interface Wanted {
  readonly states?: readonly ChangeState[]
  /** Only those with a lower number, for the next page. */
  readonly before?: number
}

const wantedWhere = ({ states, before }: Wanted): WhereOptions<KeptChange> => ({
  ...(states === undefined ? {} : { state: [...states] }),
  ...(before === undefined ? {} : { number: { [Op.lt]: before } }),
})

const latest = (wanted: Wanted, limit: number) => ({
  where: wantedWhere(wanted),
  order: [['number', 'DESC']] as [string, string][],
  limit,
})

/** The latest changes with their plans, newest first. */
export async function latestChanges(scope: Scope, limit: number, wanted: Wanted = {}): Promise<ChangeRecord[]> {
  const found = await changeModel(scope.database).findAll({
    attributes: [...recorded],
    ...latest(wanted, limit),
    ...inside(scope),
  })
  return found.map(each => toChange(plain(each)))
}

const summed = recorded.filter(each => each !== 'plan' && each !== 'facts' && each !== 'differences')

/** The latest changes as lists show them, newest first. */
export const changeSummaries = (scope: Scope, limit: number, wanted: Wanted = {}): Promise<ChangeSummary[]> =>
  remembered(scope, `summaries ${limit} ${JSON.stringify(wanted)}`, () => readSummaries(scope, limit, wanted))

async function readSummaries(scope: Scope, limit: number, wanted: Wanted): Promise<ChangeSummary[]> {
  const found = await changeModel(scope.database).findAll({
    attributes: [...summed, [literal("plan -> 'forecast'"), 'forecast']],
    ...latest(wanted, limit),
    ...inside(scope),
  })
  return found.map(each => toText(plain(each) as KeptChange & Pick<ChangeSummary, 'forecast'>))
}

/** How many changes there are in some states, or at all. */
export const changeCount = (scope: Scope, wanted: Pick<Wanted, 'states'> = {}): Promise<number> =>
  remembered(scope, `count of changes ${JSON.stringify(wanted)}`, () =>
    changeModel(scope.database).count({ where: wantedWhere(wanted), ...inside(scope) }),
  )

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

export const runningCount = (scope: Scope): Promise<number> => changeCount(scope, { states: ['running'] })

interface Outcome {
  readonly kind: string
  readonly p10: number
  readonly p50: number
  readonly p90: number
  readonly actual: number
}

/** Forecasts of ended changes beside what happened, latest first; for the hit rate. */
export const forecastOutcomes = (scope: Scope, limit = 500): Promise<Outcome[]> =>
  remembered(scope, `outcomes ${limit}`, async () => {
    const found = await outcomeModel(scope.database).findAll({ order: [['endedAt', 'DESC']], limit, ...inside(scope) })
    return found.map(plain).map(({ kind, p10Seconds, p50Seconds, p90Seconds, actualSeconds }) => ({
      kind,
      p10: p10Seconds,
      p50: p50Seconds,
      p90: p90Seconds,
      actual: actualSeconds,
    }))
  })
