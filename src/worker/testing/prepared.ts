import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { agreedBefore, keepClock } from '@/records/inventory'
import { inTransaction, run } from '@/records/database'
import { copiedDatabase, madeOnce } from '@/records/testing'
import { setSetting } from '@/records'
import type { Fleet } from '@/standins'

/** An estate that was made once, with what it says of itself: test files copy it, and go on from there. */
export interface Prepared {
  readonly name: string
  readonly fleetFolder: string
  readonly key: Buffer
  readonly ids: Readonly<Record<string, string>>
}

/** What is kept beside the copies: the key to the secrets in the database, and the ids of what was made. */
interface Told {
  readonly key: string
  readonly ids: Readonly<Record<string, string>>
}

/** What a workbench leaves that is to be copied. */
export interface Left extends Omit<Prepared, 'name'> {
  /** Where its database is; nobody is connected to it any more. */
  readonly url: string
}

/**
 * An estate that is made once for all test files of a run: whoever asks for it first makes it, the others wait for that.
 * @param make makes it, and ends what serves it
 */
export async function prepared(name: string, make: () => Promise<Left>): Promise<Prepared> {
  const folder = join(process.env['TEST_FOLDER'] ?? '', name)
  const told = join(folder, 'told.json')
  await madeOnce(`test_${name}`, async () => {
    const { url, fleetFolder, key, ids } = await make()
    mkdirSync(folder)
    renameSync(fleetFolder, join(folder, 'fleet'))
    writeFileSync(told, JSON.stringify({ key: key.toString('hex'), ids } satisfies Told))
    return url
  })
  if (!existsSync(told)) throw new Error(`The estate ${name} was made without its folder.`)
  const { key, ids } = JSON.parse(readFileSync(told, 'utf8')) as Told
  return { name, fleetFolder: join(folder, 'fleet'), key: Buffer.from(key, 'hex'), ids }
}

/** Copies the folder of its fleet, whose drives are files with next to nothing in them: what is a hole stays one. */
export function copyFleet({ fleetFolder }: Prepared, to: string): void {
  const { status, stderr } = spawnSync('cp', ['-a', '--sparse=always', `${fleetFolder}/.`, to], { encoding: 'utf8' })
  if (status !== 0) throw new Error(`The fleet was not copied: ${stderr}`)
}

/** A copy of its database, in which its fleet stands where a new one listens. */
export async function copied({ name }: Prepared, { arrays, ports, clock }: Fleet) {
  const records = await copiedDatabase(`test_${name}`)
  const { database } = records
  const at = (port: number | undefined) => `http://127.0.0.1:${port}`
  await inTransaction(database, async scope => {
    // What listens now may do so where another did before, and no two may be at one address: all of them leave theirs first.
    await run(scope, `update systems set address = 'nowhere/' || id`)
    await run(scope, 'update hosts set agent_address = null')
    for (const { model } of arrays)
      await run(scope, 'update systems set address = $2 where name = $1', [model.name, at(ports.arrays[model.name])])
    for (const [host, port] of Object.entries(ports.hosts))
      await run(scope, 'update hosts set agent_address = $2 where name = $1', [host, at(port)])
    await setSetting(scope, 'name-server', `127.0.0.1:${ports.names}`)
    // The fleet's clock has stood still since.
    const agreed = await agreedBefore(scope)
    const estateAt = new Date(clock.now()).toISOString()
    if (agreed !== undefined) await keepClock(scope, { wallAt: new Date().toISOString(), estateAt, rate: clock.rate })
  })
  return records
}
