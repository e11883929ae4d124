import { run } from '../database'
import { freshDatabase } from '../testing'
import { keepRound, rounds, sinceLatestRound } from '.'

test('a round is kept with who did it, and what ended since is counted by how it ended', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  const ended = (state: string, minutes: number) =>
    run(
      scope,
      `insert into changes (id, kind, state, intent, plan, made_by, plan_digest, edited_by, ended_at) values (gen_random_uuid(), 'x', $1, '{}', '{}', 'keeper', '', 'keeper', now() + $2::int * interval '1 minute')`,
      [state, minutes],
    )
  try {
    expect(await sinceLatestRound(scope)).toBeUndefined()
    await ended('proven', -5)
    const kept = await keepRound(scope, 'keeper', 'All quiet.')
    expect(kept).toMatchObject({ madeBy: 'keeper', note: 'All quiet.', at: expect.stringMatching(/Z$/) })
    expect(await sinceLatestRound(scope)).toEqual({
      round: kept,
      proven: 0,
      unproven: 0,
      stopped: 0,
      newFindings: 0,
      clearedFindings: 0,
      writtenBytes: 0n,
    })
    await ended('proven', 1)
    await ended('proven', 1)
    await ended('failed', 1)
    await ended('stopped', 1)
    expect(await sinceLatestRound(scope)).toMatchObject({ proven: 2, stopped: 2, unproven: 0 })
    const second = await keepRound(scope, 'warden', '')
    expect((await rounds(scope)).map(each => each.id)).toEqual([second.id, kept.id])
    expect(await rounds(scope, 1)).toEqual([second])
  } finally {
    await close()
  }
})
