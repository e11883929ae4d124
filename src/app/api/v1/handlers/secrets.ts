import type { Asked } from '@/app/server/answer'
import { keepSecret, type SecretPurpose } from '@/records/secrets'

/** Secrets that drafts name. */
export const secretHandlers = {
  keepSecret: ({ body, who, key, noted }: Asked) =>
    // The contract lets through only purposes that there are.
    noted({ action: 'secret.kept', subject: `a secret for ${String(body['purpose'])}` }, async inside => ({
      id: await keepSecret(inside, key, {
        text: String(body['text']),
        purpose: body['purpose'] as SecretPurpose,
        madeBy: who.name,
      }),
    })),
}
