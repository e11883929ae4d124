import pg from 'pg'

/** A change in the hands of one process. `lost` fires when the database no longer keeps the hold. */
export interface Hold {
  readonly lost: AbortSignal
  readonly release: () => Promise<void>
}

/** Advisory locks take a number: the last 52 bits of the change's id, under a class of their own. */
const numberOf = (changeId: string) => BigInt(`0x${changeId.replaceAll('-', '').slice(-13)}`)

/**
 * Takes a change in hand, unless another process has it. The hold is a lock of a connection of its own: the database gives it
 * back at the very moment when the process dies, so nothing has to time out.
 */
export async function holdChange(url: string, changeId: string): Promise<Hold | undefined> {
  const client = new pg.Client({ connectionString: url, application_name: 'wendrel change', keepAlive: true })
  const lost = new AbortController()
  client.on('error', () => lost.abort())
  client.on('end', () => lost.abort())
  await client.connect()
  const { rows } = await client.query<{ held: boolean }>('select pg_try_advisory_lock($1) as held', [
    numberOf(changeId).toString(),
  ])
  if (rows[0]?.held === true) return { lost: lost.signal, release: () => client.end() }
  await client.end()
  return undefined
}

/** Whether some process has the change in hand now. */
export async function isHeld(url: string, changeId: string): Promise<boolean> {
  const hold = await holdChange(url, changeId)
  await hold?.release()
  return hold === undefined
}
