'use client'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import type { FileRule } from '@/core/filetree'
import type { Share } from '@/core/estate'
import { exactBytes, parseBytes } from '@/core/units'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'

type Quota = Share['quotas'][number]

interface ListFieldProps<Item> {
  readonly label: string
  readonly value: readonly Item[]
  readonly error: string | undefined
  readonly onChange: (value: readonly Item[]) => void
}

const counts = [
  { value: 'tree', words: 'all of it' },
  { value: 'each directory', words: 'each directory in it' },
  { value: 'user', words: 'each user' },
  { value: 'group', words: 'each group' },
] as const
const newQuota: Quota = { path: '/', of: 'tree', id: null, softBytes: null, hardBytes: null, graceDays: 7 }

/** Quotas, one below another: where, of whom, and how much. */
export function QuotasField({ label, value: quotas, error, onChange }: ListFieldProps<Quota>) {
  const set = (index: number, change: Partial<Quota>) =>
    onChange(quotas.map((each, at) => (at === index ? { ...each, ...change } : each)))
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      <ol className="m-0 list-none p-0">
        {quotas.map((quota, index) => (
          <li key={index} className="mb-2 border-b border-rule-fine pb-2">
            <Head number={index + 1} what="quota" remove={() => onChange(quotas.filter((_, at) => at !== index))}>
              <input
                className="field mono min-w-0 flex-1"
                aria-label={`Path of quota ${index + 1}`}
                value={quota.path}
                maxLength={1000}
                autoComplete="off"
                spellCheck={false}
                onChange={event => set(index, { path: event.target.value })}
              />
              <Select
                aria-label={`What quota ${index + 1} counts`}
                className="max-w-[150px]"
                value={quota.of}
                options={counts}
                onChange={of => set(index, { of, ...(of === 'user' || of === 'group' ? {} : { id: null }) })}
              />
            </Head>
            <div className="mt-1 grid grid-cols-[1fr_1fr_76px] gap-[6px] pl-6">
              <SizeInput
                label={`Hard limit of quota ${index + 1}`}
                words="hard"
                bytes={quota.hardBytes}
                onChange={hardBytes => set(index, { hardBytes })}
              />
              <SizeInput
                label={`Soft limit of quota ${index + 1}`}
                words="soft"
                bytes={quota.softBytes}
                onChange={softBytes => set(index, { softBytes })}
              />
              <label className="flex items-center gap-1 text-sm text-second">
                <input
                  className="field mono min-w-0"
                  type="number"
                  min={0}
                  max={3650}
                  aria-label={`Grace of quota ${index + 1}, days`}
                  value={Number.isNaN(quota.graceDays) ? '' : quota.graceDays}
                  onChange={event => set(index, { graceDays: Math.trunc(event.target.valueAsNumber) })}
                />
                d
              </label>
            </div>
          </li>
        ))}
      </ol>
      <button type="button" className="button quiet" onClick={() => onChange([...quotas, newQuota])}>
        <Plus aria-hidden size={13} /> Add a quota
      </button>
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

interface SizeInputProps {
  readonly label: string
  readonly words: string
  readonly bytes: string | null
  readonly onChange: (bytes: string | null) => void
}

/** A size with its unit; empty for no limit. What is no size is handed on as none, and says why. */
function SizeInput({ label, words, bytes, onChange }: SizeInputProps) {
  const [text, setText] = useState(bytes === null ? '' : exactBytes(BigInt(bytes)))
  const read = text.trim() === '' ? undefined : parseBytes(text)
  const why = read === undefined || 'bytes' in read ? undefined : read.why
  return (
    <div>
      <input
        className="field mono"
        aria-label={label}
        aria-invalid={why !== undefined}
        placeholder={`${words}: 20 GiB`}
        value={text}
        maxLength={40}
        autoComplete="off"
        onChange={event => {
          setText(event.target.value)
          const parsed = event.target.value.trim() === '' ? undefined : parseBytes(event.target.value)
          onChange(parsed !== undefined && 'bytes' in parsed ? `${parsed.bytes}` : null)
        }}
      />
      {why !== undefined && <Trouble>{why}</Trouble>}
    </div>
  )
}

const contents = [
  { value: 'any', words: 'whatever is in it' },
  ...(['audio', 'video', 'picture', 'archive', 'program', 'document'] as const).map(kind => ({
    value: kind,
    words: `is ${kind} by its first bytes`,
  })),
]
const verdicts = [
  { value: 'deny', words: 'refuse' },
  { value: 'report', words: 'only tell' },
] as const

/** Kinds of files that are refused or told of, by name and by what is in them. */
export function FileRulesField({ label, value: rules, error, onChange }: ListFieldProps<FileRule>) {
  const set = (index: number, change: Partial<FileRule>) =>
    onChange(rules.map((each, at) => (at === index ? { ...each, ...change } : each)))
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      <ol className="m-0 list-none p-0">
        {rules.map((rule, index) => (
          <li key={index} className="mb-2 border-b border-rule-fine pb-2">
            <Head number={index + 1} what="kind" remove={() => onChange(rules.filter((_, at) => at !== index))}>
              <input
                className="field mono w-[96px]"
                aria-label={`Name of kind ${index + 1}`}
                placeholder="*.mp3"
                value={rule.pattern}
                maxLength={255}
                autoComplete="off"
                spellCheck={false}
                onChange={event => set(index, { pattern: event.target.value })}
              />
              <Select
                aria-label={`Content of kind ${index + 1}`}
                className="min-w-0 flex-1"
                value={rule.content}
                options={contents as readonly { readonly value: FileRule['content']; readonly words: string }[]}
                onChange={content => set(index, { content })}
              />
              <Select
                aria-label={`What happens with kind ${index + 1}`}
                className="w-[92px]"
                value={rule.verdict}
                options={verdicts}
                onChange={verdict => set(index, { verdict })}
              />
            </Head>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="button quiet"
        onClick={() => onChange([...rules, { pattern: '*', content: 'any', verdict: 'deny' }])}
      >
        <Plus aria-hidden size={13} /> Add a kind
      </button>
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

interface HeadProps {
  readonly number: number
  readonly what: string
  readonly remove: () => void
  readonly children: React.ReactNode
}

const Head = ({ number, what, remove, children }: HeadProps) => (
  <div className="flex items-center gap-2">
    <span className="mono w-4 text-right text-second">{number}</span>
    {children}
    <button
      type="button"
      className="border-0 bg-transparent p-0 text-second"
      aria-label={`Take ${what} ${number} away`}
      onClick={remove}
    >
      <X aria-hidden size={14} />
    </button>
  </div>
)
