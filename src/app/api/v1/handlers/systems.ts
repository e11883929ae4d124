import type { Asked } from '@/app/server/answer'
import { identifySystem, lookAtSystem, lookUpNames, probeRow } from '@/looking'
import { rowNetwork } from '@/records/queries'

/** What is asked of systems, nodes and the name server. */
export const systemHandlers = {
  identify: ({ body, scope, request }: Asked) => identifySystem(scope, String(body['address']), request.signal),
  lookAt({ body, scope, key, who, request }: Asked) {
    const asked = {
      address: String(body['address']),
      userName: String(body['userName']),
      password: String(body['password']),
      acceptedFingerprint: body['acceptedFingerprint'] === undefined ? null : String(body['acceptedFingerprint']),
      isPlainHttpAccepted: body['isPlainHttpAccepted'] === true,
      madeBy: who.name,
    }
    return lookAtSystem(scope, key, asked, request.signal)
  },
  lookUpNames: async ({ body, scope }: Asked) => ({
    items: await lookUpNames(scope, body['names'] as readonly string[], body['addresses'] as readonly string[]),
  }),
  async readNetwork({ scope, id }: Asked) {
    const { nodes, nodePorts, switches, switchPorts, probe } = await rowNetwork(scope, id)
    return { nodes, nodePorts, switches, switchPorts, probe: probe ?? null }
  },
  probePaths: ({ scope, id, request }: Asked) => probeRow(scope, id, request.signal),
}
