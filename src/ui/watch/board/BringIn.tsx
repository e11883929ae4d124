'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { countAtStart } from '@/core/units'
import { ask } from '../../api'
import { Field } from '../../parts/Field'
import { Fold } from '../../parts/Fold'
import { Refusal } from '../../parts/Refusal'
import { State } from '../../parts/State'

interface BroughtIn {
  readonly kept: number
  readonly refusedCount: number
  readonly refused: readonly { readonly line: number; readonly why: string }[]
}

/** Measurements from elsewhere: a file is read, what can be kept is kept, and of the rest each line says why not. */
export function BringIn() {
  const { found, refusal, isBusy, take } = useTaken()
  return (
    <Fold title="Bring in older measurements" className="mt-4">
      <Field
        label="File"
        hint="CSV with the columns object, metric, at, value; or JSON lines of these (.jsonl). Objects by their id, times with their zone, values in bytes, seconds or requests a second."
      >
        {labelled => (
          <input
            {...labelled}
            type="file"
            accept=".csv,.jsonl,.ndjson,text/csv"
            className="field h-auto"
            disabled={isBusy}
            onChange={event => {
              const [file] = event.target.files ?? []
              if (file !== undefined) void take(file)
              // The same file can be chosen again once it has been mended.
              event.target.value = ''
            }}
          />
        )}
      </Field>
      {isBusy && <p className="text-second">It is read …</p>}
      {refusal !== undefined && <Refusal refusal={refusal} />}
      {found !== undefined && <Result found={found} />}
    </Fold>
  )
}

/** Sends a file in, and keeps what came of it. */
function useTaken() {
  const router = useRouter()
  const [found, setFound] = useState<BroughtIn>()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isBusy, setBusy] = useState(false)
  const take = async (file: File) => {
    setBusy(true)
    setFound(undefined)
    const format = /\.(jsonl|ndjson|json)$/i.test(file.name) ? 'JSON lines' : 'CSV'
    const answer = await ask<BroughtIn>('POST', '/metric-imports', { format, text: await file.text() })
    setBusy(false)
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (!answer.ok) return
    setFound(answer.value)
    router.refresh()
  }
  return { found, refusal, isBusy, take }
}

const Result = ({ found: { kept, refusedCount, refused } }: { readonly found: BroughtIn }) => (
  <div role="status">
    <State gravity={refusedCount === 0 ? 'fine' : 'soon'}>
      {kept === 0 ? 'Nothing was kept.' : `${countAtStart(kept, 'sample is', 'samples are')} kept.`}
    </State>
    {refusedCount > 0 && (
      <>
        <p className="my-1 text-second">{countAtStart(refusedCount, 'line was', 'lines were')} not kept:</p>
        <ul
          className="m-0 max-h-[220px] list-none overflow-auto p-0"
          tabIndex={0}
          aria-label="Lines that were not kept"
        >
          {refused.map(({ line, why }) => (
            <li key={line}>
              <span className="mono">{line}</span> {why}
            </li>
          ))}
        </ul>
      </>
    )}
  </div>
)
