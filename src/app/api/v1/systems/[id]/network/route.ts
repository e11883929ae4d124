import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { rowNetwork } from '@/records/queries'

export const GET = answer('readNetwork', async ({ id }) => {
  const { nodes, nodePorts, switches, switchPorts, probe } = await rowNetwork({ database: context().database }, id)
  return { nodes, nodePorts, switches, switchPorts, probe: probe ?? null }
})
