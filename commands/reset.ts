import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { CommandRefused } from './CommandRefused'
import { endOrphans } from './endOrphans'
import { whoRuns } from './runFile'

/** Empties the data folder, after asking. */
export async function reset(folder: string, isSure: boolean): Promise<void> {
  if (whoRuns(folder) !== undefined)
    throw new CommandRefused('Wendrel runs on this data folder.', 'End it first: ./wendrel stop')
  if (!isSure) {
    if (!process.stdin.isTTY)
      throw new CommandRefused('reset asks, and nobody is there to answer.', 'Use ./wendrel reset --yes')
    const lines = createInterface({ input: process.stdin, output: process.stdout })
    const said = await lines.question(`This deletes everything in ${folder}. Type yes: `)
    lines.close()
    if (said.trim() !== 'yes') {
      process.stdout.write('Nothing was deleted.\n')
      return
    }
  }
  // Deleting beneath a server that still runs would leave it there, with nothing to end it by.
  await endOrphans(folder)
  const pointer = join(folder, 'cluster-folder')
  if (existsSync(pointer)) rmSync(readFileSync(pointer, 'utf8'), { recursive: true, force: true })
  rmSync(folder, { recursive: true, force: true })
  process.stdout.write('The data folder is empty.\n')
}
