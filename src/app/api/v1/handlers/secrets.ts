import type { Asked } from '@/app/server/answer'
import { BadRequest } from '@/app/server/errors'
import { chapSecretTrouble } from '@/core/hosts'
import { keepSecret, type SecretPurpose } from '@/records/secrets'

/** Secrets that drafts name. */
export const secretHandlers = {
  keepSecret({ body, who, key, noted }: Asked) {
    const trouble = body['purpose'] === 'chap' ? chapSecretTrouble(String(body['text'])) : undefined
    if (trouble !== undefined) throw new BadRequest(trouble)
    // The contract lets through only purposes that there are.
    return noted({ action: 'secret.kept', subject: `a secret for ${String(body['purpose'])}` }, async inside => ({
      id: await keepSecret(inside, key, {
        text: String(body['text']),
        purpose: body['purpose'] as SecretPurpose,
        madeBy: who.name,
      }),
    }))
  },
}
