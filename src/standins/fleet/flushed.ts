import { fsyncSync } from 'node:fs'

/**
 * Has what was written to a file reach the disk before anything rests on it. Where only processes die and never the machine, as in tests,
 * what the kernel holds is safe without: `WENDREL_FLUSH=none` spares the wait.
 */
export function flushed(file: number): void {
  if (process.env['WENDREL_FLUSH'] !== 'none') fsyncSync(file)
}
