import { existsSync, mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'

export const projectFolder = resolve(import.meta.dirname, '..')

/** Where everything is kept: WENDREL_DATA, or `.data` in the project. */
export function dataFolder(): string {
  const folder = resolve(process.env['WENDREL_DATA'] ?? join(projectFolder, '.data'))
  if (!existsSync(folder)) mkdirSync(folder, { recursive: true })
  return folder
}
