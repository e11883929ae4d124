import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { stopPostgres } from './postgres'
import { endLeftOver } from './processes'

/** Ends what still runs on a data folder whose start was killed itself and could not end it; @returns whether anything did */
export async function endOrphans(folder: string): Promise<boolean> {
  if (!existsSync(folder)) return false
  const ended = await endLeftOver(join(folder, 'logs'))
  return stopPostgres(folder) || ended > 0
}
