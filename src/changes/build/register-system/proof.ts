import type { RegisterSystemIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { fact } from '../../parts/known'

/** Asks the system once more and holds the records against its answer. */
export async function prove(
  intent: Intent,
  _plan: Plan<unknown>,
  facts: Facts,
  ports: ChangePorts,
): Promise<Evidence[]> {
  const systemId = fact(facts, 'systemId')
  const system = await ports.system(systemId)
  const found = await system.inventory()
  const estate = await ports.estate()
  const kept = new Set(estate.drives.filter(drive => drive.systemId === systemId).map(drive => drive.serial))
  const missing = found.drives.filter(drive => !kept.has(drive.serial))
  const record = estate.systems.find(each => each.id === systemId)
  return [
    {
      claim: `${intent.name} states the UUID that it was registered by`,
      holds: record?.uuid === found.identity.uuid,
      measured: { stated: found.identity.uuid, kept: record?.uuid ?? 'nothing' },
    },
    {
      claim: 'Every drive that it states is in the records',
      holds: missing.length === 0 && kept.size === found.drives.length,
      measured: {
        stated: `${found.drives.length}`,
        kept: `${kept.size}`,
        missing: missing.map(drive => drive.serial).join(', '),
      },
    },
  ]
}
