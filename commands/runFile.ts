import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { CommandRefused } from './CommandRefused'

/** Who runs on a data folder: written at the start, gone at the end. */
export interface Running {
  readonly pid: number
  readonly startedAt: string
  readonly address?: string
}

const fileIn = (folder: string) => join(folder, 'running.json')
/** When a process was started, by the kernel's count: tells a process from a later one that was given the same number. */
const startOf = (pid: number) => {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)?.split(' ')[19] ?? ''
  } catch {
    return ''
  }
}

/** Who runs on the folder now; a file that a dead process has left is not believed, and cleared away. */
export function whoRuns(folder: string): Running | undefined {
  if (!existsSync(fileIn(folder))) return undefined
  try {
    const running = JSON.parse(readFileSync(fileIn(folder), 'utf8')) as Running
    if (startOf(running.pid) !== '' && startOf(running.pid) === running.startedAt) return running
  } catch {
    // half written by a process that was cut off: nobody runs by it
  }
  rmSync(fileIn(folder), { force: true })
  return undefined
}

export function takeFolder(folder: string): void {
  const running = whoRuns(folder)
  if (running !== undefined)
    throw new CommandRefused(
      `Wendrel runs on this data folder already${running.address === undefined ? '' : `, at ${running.address}`} (process ${running.pid}).`,
      'Use it, or end it with ./wendrel stop.',
    )
  note(folder)
}

export const note = (folder: string, address?: string) =>
  writeFileSync(
    fileIn(folder),
    JSON.stringify({
      pid: process.pid,
      startedAt: startOf(process.pid),
      ...(address === undefined ? {} : { address }),
    }),
  )

export const leaveFolder = (folder: string) => rmSync(fileIn(folder), { force: true })
