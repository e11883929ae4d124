import { useState, type ReactNode } from 'react'
import { useForm, useWatch, type FieldValues } from 'react-hook-form'
import type { CodedRefusal } from '@/core/errors'
import type { Answered } from '../api'
import { Refusal } from './Refusal'

interface Sending<Given, T> {
  readonly start: Given
  readonly send: (given: Given) => Promise<Answered<T>>
  /** What follows when it was taken. What is typed stays until `clear`. */
  readonly sent?: (value: T, clear: () => void) => void | Promise<void>
}

/** A short form that is sent as a whole: what stands in it, and why it was refused; what was typed stays then. */
export function useEntries<Given extends Readonly<Record<string, string | number>>, T = unknown>({
  start,
  send,
  sent,
}: Sending<Given, T>) {
  const { control, handleSubmit, setValue, reset, formState } = useForm<FieldValues>({ defaultValues: start })
  const given = useWatch({ control }) as Given
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const submit = handleSubmit(async () => {
    const answer = await send(given)
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (answer.ok) await sent?.(answer.value, () => reset(start))
  })
  const entry = <Name extends keyof Given & string>(name: Name) => ({
    value: given[name],
    onChange: (value: Given[Name]) => (setValue as (name: string, value: unknown) => void)(name, value),
  })
  const told: ReactNode = refusal === undefined ? null : <Refusal refusal={refusal} />
  return { given, entry, submit, told, isBusy: formState.isSubmitting }
}
