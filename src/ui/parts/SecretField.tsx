'use client'
import { useState } from 'react'
import { ask } from '../api'
import { TextField } from './TextField'

interface SecretFieldProps {
  readonly label: string
  readonly hint: string | undefined
  readonly error: string | undefined
  /** The id of the secret that is kept; empty where there is none. */
  readonly value: string
  /** What it is kept for. */
  readonly purpose: string
  readonly onChange: (id: string) => void
}

/** A secret goes to the server as soon as it is typed, is sealed there, and never comes back: the draft holds only its id. */
export function SecretField({ label, hint, error, value, purpose, onChange }: SecretFieldProps) {
  const [typed, setTyped] = useState('')
  const [trouble, setTrouble] = useState<string>()
  const keep = async () => {
    if (typed === '') return
    const answer = await ask<{ readonly id: string }>('POST', '/secrets', { purpose, text: typed })
    if (!answer.ok) return setTrouble(answer.refusal.why)
    setTyped('')
    setTrouble(undefined)
    onChange(answer.value.id)
  }
  const isKept = value !== '' && typed === ''
  return (
    <div
      onBlur={() => {
        void keep()
      }}
    >
      <TextField
        label={label}
        type="password"
        autoComplete="new-password"
        maxLength={500}
        hint={isKept ? 'Kept, sealed. What is typed here replaces it.' : hint}
        error={trouble ?? error}
        value={typed}
        onChange={text => {
          setTyped(text)
          setTrouble(undefined)
        }}
      />
    </div>
  )
}
