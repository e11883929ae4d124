import { useRouter } from 'next/navigation'
import { useState, type ReactNode } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { Answered } from '../../api'
import { Refusal } from '../../parts/Refusal'

/** Sends something and shows the page anew, or why it was refused. */
export function useSending() {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const send = async <T,>(answer: Promise<Answered<T>>): Promise<T | undefined> => {
    const got = await answer
    setRefusal(got.ok ? undefined : got.refusal)
    if (!got.ok) return undefined
    router.refresh()
    return got.value
  }
  const told: ReactNode = refusal === undefined ? null : <Refusal refusal={refusal} />
  return { send, told, isRefused: refusal !== undefined }
}
