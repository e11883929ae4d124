'use client'
import { useState } from 'react'

/** An identifier or command that is copied by a click. */
export function Copied({
  text,
  shown,
  className = '',
}: {
  readonly text: string
  readonly shown?: string
  readonly className?: string
}) {
  const [isCopied, setCopied] = useState(false)
  const copy = async () => {
    await navigator.clipboard.writeText(text).catch(() => undefined)
    setCopied(true)
    setTimeout(() => setCopied(false), 1200)
  }
  return (
    <button
      type="button"
      onClick={() => void copy()}
      title={`Copy ${text}`}
      className={`mono cursor-copy border-0 bg-transparent p-0 text-left [overflow-wrap:anywhere] ${className}`}
    >
      {shown ?? text}
      <span aria-live="polite" className="text-faint">
        {isCopied ? '  copied' : ''}
      </span>
    </button>
  )
}
