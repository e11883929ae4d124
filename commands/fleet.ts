import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { FleetPorts } from '@/standins'
import { CommandRefused } from './CommandRefused'

const usage =
  'Use: fleet | fleet rate N | fleet step SECONDS | fleet fault TARGET KIND [name=value …] | fleet workload SYSTEM VOLUME BYTES | fleet files SYSTEM SHARE COUNT | fleet clear'

const numeric = new Set(['milliseconds', 'retryAfterSeconds', 'atRatio', 'times', 'mtu', 'seconds'])

/** Speaks to the simulated fleet's own control interface. @returns what it answers @throws {CommandRefused} */
export async function fleet(folder: string, words: readonly string[]): Promise<unknown> {
  const file = join(folder, 'fleet-ports.json')
  if (!existsSync(file))
    throw new CommandRefused('No simulated fleet has been started on this data folder.', './wendrel demo starts one.')
  const { control } = JSON.parse(readFileSync(file, 'utf8')) as FleetPorts
  const [verb, ...rest] = words
  const ask = async (method: string, path: string, body?: object) => {
    const response = await fetch(`http://127.0.0.1:${control}${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    }).catch(() => {
      throw new CommandRefused('The simulated fleet does not answer.', './wendrel demo starts it.')
    })
    const answer: unknown = await response.json()
    if (!response.ok) throw new CommandRefused(`The fleet refused: ${JSON.stringify(answer)}`, usage)
    return answer
  }
  const [target = '', kind = '', ...options] = rest
  if (verb === undefined) return ask('GET', '/fleet')
  if (verb === 'rate') return ask('PUT', '/clock', { rate: Number(target) })
  if (verb === 'step') return ask('POST', '/clock/step', { seconds: Number(target) })
  if (verb === 'clear') return ask('DELETE', '/faults/all')
  if (verb === 'workload') return ask('POST', '/workload', { system: target, volume: kind, bytes: options[0] ?? '' })
  if (verb === 'files') return ask('POST', '/files', { system: target, share: kind, count: Number(options[0]) })
  if (verb !== 'fault') throw new CommandRefused(`fleet ${verb} is not known.`, usage)
  const more = options
    .map(option => option.split('='))
    .map(([name = '', value = '']) => [name, numeric.has(name) ? Number(value) : value] as const)
  return ask('POST', '/faults', { target, kind, ...Object.fromEntries(more) })
}
