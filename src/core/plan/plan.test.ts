import { canMove, changeStates, isReady, planDifference, runSheet, shownDifference, shownPlan, type Plan } from '.'

const forecast = { baseSeconds: 10, p10Seconds: 8, p50Seconds: 10, p90Seconds: 14, boundBy: 'drives', learnedFrom: 0 }
const plan: Plan = {
  title: 'x',
  checks: [{ rule: 'name', field: 'name', holds: true, level: 'must', why: 'good' }],
  effects: [],
  oneWay: [],
  undo: { possible: true, how: '' },
  steps: [
    { name: 'create', words: 'Create', forecast, step: {} },
    { name: 'map', words: 'Map', forecast, step: {} },
  ],
  forecast,
  reads: [{ kind: 'pool', id: 'p', name: 'bulk', revision: 1 }],
  claims: [],
  proof: '',
}

test('lanes follow each other as forecast and fill as they happened', () => {
  const lanes = runSheet(
    plan,
    [
      { stepIndex: 0, event: 'begun', atSeconds: 1 },
      { stepIndex: 0, event: 'progress', atSeconds: 5, doneRatio: 0.4 },
    ],
    6,
  )
  expect(lanes[0]).toMatchObject({ forecastFrom: 0, forecastTo: 10, from: 1, to: 6, doneRatio: 0.4, state: 'running' })
  expect(lanes[1]).toMatchObject({ forecastFrom: 10, forecastTo: 20, from: null, state: 'waiting', doneRatio: 0 })
})

test('a difference names what moved and which check fell', () => {
  const after: Plan = {
    ...plan,
    reads: [{ kind: 'pool', id: 'p', name: 'bulk', revision: 2 }],
    checks: [{ rule: 'name', field: 'name', holds: false, level: 'must', why: 'taken' }],
  }
  expect(planDifference(plan, after)).toEqual(['bulk (pool) has changed since the plan was made.', 'taken'])
  expect(planDifference(plan, plan)).toEqual([])
  expect(isReady(plan)).toBe(true)
  expect(isReady(after)).toBe(false)
})

test('of a plan as it is shown, what it rests on is told by its revisions alone', () => {
  const read = { kind: 'pool', id: 'p', name: 'bulk', revision: 3 }
  const before = shownPlan({ ...plan, reads: [read, { ...read, id: 'q' }], claims: ['p'] })
  expect(before).not.toHaveProperty('reads')
  expect(before).not.toHaveProperty('claims')
  expect(shownDifference(before, before)).toEqual([])
  const moved = shownPlan({ ...plan, reads: [read, { ...read, id: 'q', revision: 4 }] })
  expect(shownDifference(before, moved)).toEqual(['Something that it rests on has changed since the plan was made.'])
  const fewer = shownPlan({ ...plan, reads: [read], steps: plan.steps.slice(1) })
  expect(shownDifference(before, fewer)).toEqual([
    'Something that it rests on has changed since the plan was made.',
    'It would be carried out in other steps now.',
  ])
})

test('an ended change never runs again', () => {
  for (const from of ['proven', 'failed', 'undone'] as const) expect(canMove(from, 'running')).toBe(false)
  expect(changeStates.filter(to => canMove('draft', to))).toEqual(['checked', 'running'])
})
