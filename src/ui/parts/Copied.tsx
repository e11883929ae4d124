'use client'
import { Check, Copy } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { toast } from './toast'
import { Tip } from './Tip'

/** An identifier or command that is copied by a click. */
export function Copied({
  text,
  shown,
  className = '',
}: {
  readonly text: string
  readonly shown?: ReactNode
  readonly className?: string
}) {
  const [isCopied, setCopied] = useState(false)
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text)
    } catch {
      return toast.error('The browser did not let it be copied. Select the text and copy it by hand.')
    }
    setCopied(true)
    setTimeout(() => setCopied(false), 1200)
  }
  const Icon = isCopied ? Check : Copy
  return (
    <Tip words={isCopied ? 'copied' : `Copy ${text}`}>
      <button
        type="button"
        onClick={() => void copy()}
        className={`mono group cursor-copy border-0 bg-transparent p-0 text-left [overflow-wrap:anywhere] ${className}`}
      >
        {shown ?? text}
        <Icon
          aria-hidden
          size={11}
          className={`ml-1 inline-block text-faint ${isCopied ? '' : 'opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100'}`}
        />
        <span aria-live="polite" className="sr-only">
          {isCopied ? 'copied' : ''}
        </span>
      </button>
    </Tip>
  )
}
