import fc from 'fast-check'
import { emptyEstate, type Estate } from '@/core/estate'
import { sampleId, samplePool, sampleShare, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import { intents } from '@/core/intents'
import { isReady, type Plan } from '@/core/plan'
import { kindNamed, kinds, planIntent, readIntent } from '.'

const now = new Date('2026-05-04T10:00:00Z')
const planned = (kind: string, intent: object, estate: Estate = emptyEstate) =>
  planIntent(kind, readIntent(kind, intent), () => Promise.resolve(estate), now)

interface Shape {
  readonly const?: unknown
  readonly enum?: readonly unknown[]
  readonly oneOf?: readonly Shape[]
  readonly type?: string | readonly string[]
  readonly format?: string
  readonly pattern?: string
  readonly minLength?: number
  readonly maxLength?: number
  readonly minimum?: number
  readonly minItems?: number
  readonly items?: Shape
  readonly required?: readonly string[]
  readonly properties?: Readonly<Record<string, Shape>>
}

/** The least that a schema lets through: empty where that will do, of some choices the first, an id of something that is not there. */
function least(shape: Shape): unknown {
  if ('const' in shape) return shape.const
  if (shape.enum !== undefined) return shape.enum[0]
  if (shape.oneOf?.[0] !== undefined) return least(shape.oneOf[0])
  const types = [shape.type ?? 'object'].flat()
  if (types.includes('null')) return null
  switch (types[0]) {
    case 'string':
      return shape.format === 'uuid' ? sampleId(99) : 'x'.repeat(shape.minLength ?? 0)
    case 'boolean':
      return false
    case 'array':
      return Array.from({ length: shape.minItems ?? 0 }, () => least(shape.items ?? {}))
    case 'object':
      return Object.fromEntries((shape.required ?? []).map(field => [field, least(shape.properties?.[field] ?? {})]))
    default:
      return shape.minimum ?? 0
  }
}
const leastOf = ({ intentSchema }: (typeof intents)[number]) => least(intentSchema) as object

/** All that somebody reads of a plan. */
const wordsIn = ({ title, checks, effects, oneWay, undo, steps, proof }: Plan) =>
  [
    title,
    proof,
    undo.how,
    ...oneWay,
    ...checks.flatMap(({ why, remedy = '' }) => [why, remedy]),
    ...effects.flatMap(({ label, before, after }) => [label, `${before}`, `${after}`]),
    ...steps.map(({ words }) => words),
  ].join('\n')

test('every kind of change that can be drafted is registered, each once', () => {
  const names = kinds.map(({ kind }) => kind)
  expect(new Set(names).size).toBe(names.length)
  expect(intents.map(({ kind }) => kind).sort()).toEqual([...names].sort())
})

test.each(intents.map(each => [each.kind, each] as const))(
  '%s, of which nothing has been said in an empty estate, says what is missing and is not ready',
  async (kind, drafted) => {
    const plan = await planned(kind, leastOf(drafted))
    expect([kind, isReady(plan)]).toEqual([kind, false])
    expect(plan.title).not.toBe('')
    expect(wordsIn(plan)).not.toMatch(/undefined|NaN|\[object/)
    expect(plan.reads).toEqual([])
    for (const check of plan.checks.filter(each => !each.holds)) expect(check.why).toMatch(/[.:…)]$|…/)
  },
)

const crowded: Estate = {
  ...emptyEstate,
  systems: [sampleSystem()],
  pools: [samplePool()],
  volumes: [sampleVolume()],
  shares: [sampleShare()],
}
/** Texts as they come from outside: empty, long, with what could be markup, a path, SQL or another script. */
const hostile = fc.oneof(
  fc.constantFrom(
    '',
    '../../etc/passwd',
    '<img src=x onerror=alert(1)>',
    `'; drop table volumes; --`,
    '\u202eabc',
    '💾',
  ),
  fc.string({ maxLength: 60, unit: 'binary' }),
)

test('whatever texts an intent has, its plan is made, is plain JSON, and made again is the same', async () => {
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...intents), hostile, fc.boolean(), async (drafted, text, isChosen) => {
      const { properties = {} } = drafted.intentSchema as Shape
      const chosen: Readonly<Record<string, string>> = isChosen
        ? { volumeId: sampleId(20), poolId: sampleId(9), systemId: sampleId(1), shareId: sampleId(71) }
        : {}
      const filled = Object.fromEntries(
        Object.entries(properties).flatMap(([field, { type, pattern, maxLength = 60 }]) =>
          type === 'string' && pattern === undefined ? [[field, text.slice(0, maxLength)]] : [],
        ),
      )
      const ids = Object.fromEntries(Object.entries(chosen).filter(([field]) => field in properties))
      const intent = { ...leastOf(drafted), ...filled, ...ids }
      let read: object
      try {
        read = readIntent(drafted.kind, intent)
      } catch (cause) {
        // A schema may refuse a text: then nothing is planned, and the field is named.
        expect(cause).toMatchObject({ code: 'change.intent-refused' })
        return
      }
      const plan = await planned(drafted.kind, read, crowded)
      const text1 = JSON.stringify(plan)
      expect(JSON.parse(text1)).toEqual(JSON.parse(JSON.stringify(await planned(drafted.kind, read, crowded))))
      expect(wordsIn(plan)).not.toMatch(/undefined|NaN|\[object/)
      expect(plan.steps.every(({ forecast }) => forecast.p50Seconds >= 0)).toBe(true)
    }),
    { numRuns: 300 },
  )
})

test('a kind that is not there is refused with those that are', () =>
  expect(() => kindNamed('__proto__')).toThrow(expect.objectContaining({ code: 'change.unknown-kind' })))
