import isEqual from 'fast-deep-equal'
import { useCallback, useState } from 'react'
import { useForm, useWatch, type FieldErrors, type FieldValues, type Resolver } from 'react-hook-form'
import type { ShownChange } from '@/core/views'
import { shapeTroubles } from './shapeTroubles'

export interface Filled<Intent> {
  /** As it stands in the form; the same object as long as nothing in it is altered. */
  readonly intent: Intent
  /** Whether anything has been filled in here. */
  readonly isTouched: boolean
  readonly fill: (patch: Partial<Intent>) => void
  /** What is wrong with the shape of a field. */
  readonly troubleOf: (field: string) => string | undefined
  /** Whether a field may say what it lacks. */
  readonly mayReproach: (field: string) => boolean
}

const errorsOf = (troubles: Readonly<Record<string, string>>): FieldErrors =>
  Object.fromEntries(Object.entries(troubles).map(([field, message]) => [field, { type: 'shape', message }]))

/** What stands in the form of a draft, and what its schema says of it. */
export function useFilled<Intent extends object>(
  kind: string,
  initial: Intent,
  kept: ShownChange | undefined,
): Filled<Intent> {
  const resolver: Resolver<FieldValues> = async values => {
    const errors = errorsOf(await shapeTroubles(kind, values))
    return Object.keys(errors).length === 0 ? { values, errors: {} } : { values: {}, errors }
  }
  const { control, setValue, formState } = useForm<FieldValues>({
    defaultValues: (kept?.intent as Intent | undefined) ?? initial,
    resolver,
  })
  const { touchedFields, errors } = formState
  const intent = useSame(useWatch({ control }) as Intent)
  // A draft that is opened again says at once what it lacks; one that gets its id while it is open does not.
  const [wasKept] = useState(kept !== undefined)
  const fill = useCallback(
    (patch: Partial<Intent>) => {
      for (const [field, value] of Object.entries(patch))
        setValue(field, value, { shouldTouch: true, shouldDirty: true, shouldValidate: true })
    },
    [setValue],
  )
  const touched = Object.keys(touchedFields).join(' ')
  const mayReproach = useCallback((field: string) => wasKept || touched.split(' ').includes(field), [wasKept, touched])
  return {
    intent,
    isTouched: touched !== '',
    fill,
    troubleOf: field => {
      const message = errors[field]?.message
      return typeof message === 'string' ? message : undefined
    },
    mayReproach,
  }
}

/** What is equal to what was there before is that. */
function useSame<T>(value: T): T {
  const [same, keep] = useState(value)
  if (same === value || isEqual(same, value)) return same
  keep(value)
  return value
}
