import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { FleetPorts } from '@/standins'
import { hostModels } from '@/standins/demo/models'
import { CommandRefused } from './CommandRefused'
import { freePort, isForPages, isFree } from './ports'

/** A port that stays the same from start to start, since addresses of registered systems rest on it. */
export async function keptPort(folder: string, name: string, wanted: number, isFixed: boolean): Promise<number> {
  const file = join(folder, name)
  const known = existsSync(file) && !isFixed ? Number(readFileSync(file, 'utf8')) : undefined
  const port = known ?? (isFixed ? wanted : await freePort(wanted))
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new CommandRefused(
      `There is no port ${process.env['PORT'] ?? port}.`,
      'Set PORT to a number from 1 to 65535.',
    )
  if (!(await isFree(port)))
    throw new CommandRefused(
      `Port ${port} is taken by another program.`,
      `End that program, or set PORT to a free one${known === undefined ? '' : `, or remove ${file}`}.`,
    )
  if (!(await isForPages(port)))
    throw new CommandRefused(`No browser opens pages at port ${port}.`, 'Set PORT to another, such as 4180.')
  writeFileSync(file, `${port}`)
  return port
}

/** Where each system of the fleet answers: chosen once, as the systems are registered under them. */
export async function fleetPorts(folder: string): Promise<FleetPorts> {
  const file = join(folder, 'fleet-ports.json')
  mkdirSync(join(folder, 'fleet'), { recursive: true })
  if (existsSync(file)) {
    const read = JSON.parse(readFileSync(file, 'utf8')) as FleetPorts
    const known = await completed(read)
    writeFileSync(file, JSON.stringify(known))
    await allFree(known)
    return known
  }
  let next = 4200
  const take = async () => (next = await freePort(next + 1))
  const control = await take()
  const arrays: Record<string, number> = {}
  for (const name of ['heron', 'bittern', 'godwit', 'curlew']) arrays[name] = await take()
  const hosts: Record<string, number> = {}
  for (const { name } of hostModels) hosts[name] = await take()
  const ports: FleetPorts = {
    control,
    arrays,
    hosts,
    nodes: await take(),
    names: await take(),
    outsideNames: await take(),
    directory: await take(),
    desk: await deskPorts(take),
  }
  writeFileSync(file, JSON.stringify(ports))
  return ports
}

/** @throws {CommandRefused} where another program has one of them */
async function allFree({ control, arrays, hosts, nodes, names, outsideNames, directory, desk }: FleetPorts) {
  const single = [control, nodes, names, outsideNames, directory]
  for (const port of [...single, ...[arrays, hosts, desk].flatMap(each => Object.values(each))])
    if (!(await isFree(port)))
      throw new CommandRefused(
        `Port ${port} of the simulated fleet is taken by another program.`,
        `End that program; the systems are registered under these ports. ./wendrel reset chooses new ones.`,
      )
}

/** A folder from before a stand-in was added lacks its port: it gets one, the others stay. */
async function completed(
  known: Partial<FleetPorts> & Pick<FleetPorts, 'control' | 'arrays' | 'hosts'>,
): Promise<FleetPorts> {
  let next = Math.max(known.control, ...Object.values(known.arrays), ...Object.values(known.hosts)) + 1
  const take = async () => {
    const port = await freePort(next)
    next = port + 1
    return port
  }
  const { godwit = await take(), curlew = await take() } = known.arrays
  const hosts: Record<string, number> = {}
  for (const { name } of hostModels) hosts[name] = known.hosts[name] ?? (await take())
  return {
    ...known,
    hosts,
    arrays: { ...known.arrays, godwit, curlew },
    nodes: known.nodes ?? (await take()),
    names: known.names ?? (await take()),
    outsideNames: known.outsideNames ?? (await take()),
    directory: known.directory ?? (await take()),
    desk: known.desk ?? (await deskPorts(take)),
  }
}

const deskPorts = async (take: () => Promise<number>) => ({
  http: await take(),
  smtp: await take(),
  syslog: await take(),
})
