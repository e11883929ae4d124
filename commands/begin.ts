import { CommandRefused } from './CommandRefused'
import { start } from './start'

// What is built of this file starts everything, by itself: read as they are written, its sources alone would take three seconds.
try {
  await start(process.argv[2] === 'demo')
} catch (cause) {
  if (!(cause instanceof CommandRefused)) throw cause
  process.stderr.write(`${cause.message}\n${cause.wayOut}\n`)
  process.exitCode = 1
}
