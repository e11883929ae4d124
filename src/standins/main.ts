import { readFileSync } from 'node:fs'
import { startFleet, type FleetPorts } from './startFleet'

/** The process of the simulated fleet. FLEET_FOLDER is where it keeps its state, FLEET_PORTS a JSON file with its ports. */
const folder = process.env['FLEET_FOLDER'] ?? '.data/fleet'
const ports = JSON.parse(readFileSync(process.env['FLEET_PORTS'] ?? `${folder}/ports.json`, 'utf8')) as FleetPorts

const fleet = await startFleet(folder, ports, Number(process.env['FLEET_RATE'] ?? 60))
process.stdout.write('the fleet answers\n')
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.once(signal, () => void fleet.stop().then(() => process.exit(0)))
}
