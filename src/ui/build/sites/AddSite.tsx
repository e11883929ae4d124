'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { ask } from '../../api'
import { Refusal } from '../../parts/Refusal'

/** Adds a site by its name. */
export function AddSite() {
  const router = useRouter()
  const [name, setName] = useState('')
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const add = async () => {
    const answer = await ask('POST', '/sites', { name })
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (!answer.ok) return
    setName('')
    router.refresh()
  }
  return (
    <form
      className="mt-2 flex items-end gap-2"
      onSubmit={event => {
        event.preventDefault()
        void add()
      }}
    >
      <label className="min-w-0 flex-1">
        <span className="label">Add a site</span>
        <input className="field" value={name} onChange={event => setName(event.target.value)} maxLength={120} />
      </label>
      <button type="submit" className="button quiet" disabled={name.trim() === ''}>
        Add
      </button>
      {refusal !== undefined && <Refusal refusal={refusal} />}
    </form>
  )
}
