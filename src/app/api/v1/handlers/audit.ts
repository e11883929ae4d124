import type { Asked } from '@/app/server/answer'
import type { Scope } from '@/records'
import { auditAfter, auditEntries, firstBrokenEntry } from '@/records/audit'

const exportedAtOnce = 500
const newest = Number.MAX_SAFE_INTEGER

/** The record of who did what. */
export const auditHandlers = {
  listAudit: async ({ scope, query }: Asked) => ({
    items: await auditEntries(scope, Number(query['before'] ?? newest), Number(query['limit'] ?? 100)),
  }),
  checkAudit: async ({ scope }: Asked) => ({ firstBroken: (await firstBrokenEntry(scope)) ?? null }),
  exportAudit: async ({ scope }: Asked) =>
    new Response(linesOf(scope), {
      headers: {
        'Content-Type': 'application/x-ndjson',
        'Content-Disposition': 'attachment; filename="wendrel-audit.jsonl"',
        'Cache-Control': 'no-store',
      },
    }),
}

/** One entry a line, read piece by piece as it is taken. */
function linesOf(scope: Scope): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder()
  let last = 0
  return new ReadableStream({
    async pull(controller) {
      const entries = await auditAfter(scope, last, exportedAtOnce)
      last = entries.at(-1)?.id ?? last
      if (entries.length === 0) return controller.close()
      controller.enqueue(encoder.encode(entries.map(entry => `${JSON.stringify(entry)}\n`).join('')))
    },
  })
}
