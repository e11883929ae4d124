import { randomBytes } from 'node:crypto'
import { TaskRuns } from '@/changes'
import { blankIntent, defineClassIntent } from '@/core/intents'
import { carryOut, makeDraft, stop } from '@/drafting'
import { readyIds } from '@/records/changes'
import { enrolled, freshDatabase } from '@/records/testing'
import { giveSlotBack } from './giveSlotBack'
import { Later } from './patience'

let systemId = ''
let records: Awaited<ReturnType<typeof freshDatabase>>
beforeAll(async () => {
  records = await freshDatabase()
  ;({ systemId } = await enrolled({ database: records.database }, randomBytes(32), 'heron'))
})
afterAll(() => records.close())

const tester = { name: 'tester', address: null }
let classes = 0
/** A change that runs, as a worker has it in hand. */
async function running(): Promise<string> {
  const { database } = records
  classes += 1
  const intent = { ...blankIntent(defineClassIntent), name: `class-${classes}`, media: 'any', timeZone: 'UTC' }
  const draft = await makeDraft({ database }, 'define-class', intent, tester)
  await carryOut(database, draft.id, draft.planDigest, tester)
  return draft.id
}
const asked = (changeId: string, cause: TaskRuns | Later, canStop = true) =>
  giveSlotBack(records.database, { changeId, stepIndex: 0, cause, failing: {}, canStop })
const isReady = async (id: string) => (await readyIds({ database: records.database })).includes(id)
const task = () => new TaskRuns(systemId, '/tasks/1', 'Moving', 0.1)
const later = () => new Later(new Error('It does not answer.'), 600)

test.each([
  ['a task', task],
  ['a later moment', later],
])('a stop that comes while the step is at work ends the wait for %s before it has begun', async (_, cause) => {
  const [waits, stopped, takenBack] = [await running(), await running(), await running()]
  await asked(waits, cause())
  expect(await isReady(waits)).toBe(false)
  await stop({ database: records.database }, stopped, tester)
  await asked(stopped, cause())
  expect(await isReady(stopped)).toBe(true)
  // What was made is taken back to its end: to look again and again whether it may stop would be for nothing.
  await stop({ database: records.database }, takenBack, tester)
  await asked(takenBack, cause(), false)
  expect(await isReady(takenBack)).toBe(false)
})

test('a stop and a wait that come at the same moment never miss each other', async () => {
  for (let round = 0; round < 30; round += 1) {
    const id = await running()
    await Promise.all([stop({ database: records.database }, id, tester), asked(id, task())])
    expect(await isReady(id)).toBe(true)
  }
})
