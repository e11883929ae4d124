'use client'
import { useState } from 'react'
import type { Share } from '@/core/estate'
import { exactBytes, parseBytes } from '@/core/units'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'
import { LineHead, ListField, type LineProps, type ListFieldProps } from './ListField'

type Quota = Share['quotas'][number]

const counts = [
  { value: 'tree', words: 'all of it' },
  { value: 'each directory', words: 'each directory in it' },
  { value: 'user', words: 'each user' },
  { value: 'one user', words: 'one user' },
  { value: 'group', words: 'each group' },
  { value: 'one group', words: 'one group' },
  { value: 'project', words: 'a project' },
] as const
type Counts = (typeof counts)[number]['value']

/** What a quota counts, as it is chosen: one or each of its people by their id. */
const countsOf = ({ of, id }: Quota): Counts =>
  id === null ? of : of === 'user' ? 'one user' : of === 'group' ? 'one group' : of

const countedBy = (chosen: Counts): Pick<Quota, 'of' | 'id' | 'project'> => ({
  of: chosen === 'one user' ? 'user' : chosen === 'one group' ? 'group' : chosen,
  id: chosen === 'one user' || chosen === 'one group' ? 0 : null,
  project: chosen === 'project' ? { name: '', alsoAt: [] } : undefined,
})

const newQuota: Quota = { path: '/', of: 'tree', id: null, softBytes: null, hardBytes: null, graceDays: 7 }

/** Quotas, one below another: where, of whom, and how much. */
export const QuotasField = ({ label, value, error, onChange }: ListFieldProps<Quota>) => (
  <ListField {...{ label, value, error, onChange }} fresh={newQuota} addWords="Add a quota" Line={QuotaLine} />
)

const QuotaLine = ({ item: quota, number, set, remove }: LineProps<Quota>) => (
  <>
    <LineHead number={number} what="quota" remove={remove}>
      <input
        className="field mono min-w-0 flex-1"
        aria-label={`Path of quota ${number}`}
        value={quota.path}
        maxLength={1000}
        autoComplete="off"
        spellCheck={false}
        onChange={event => set({ path: event.target.value })}
      />
      <Select
        aria-label={`What quota ${number} counts`}
        className="max-w-[150px]"
        value={countsOf(quota)}
        options={counts}
        onChange={chosen => set(countedBy(chosen))}
      />
    </LineHead>
    {quota.id !== null && <OfWhom number={number} of={quota.of} id={quota.id} onChange={id => set({ id })} />}
    {quota.project !== undefined && (
      <OfProject number={number} project={quota.project} onChange={project => set({ project })} />
    )}
    <div className="mt-1 grid grid-cols-[1fr_1fr_76px] gap-[6px] pl-6">
      <SizeInput
        label={`Hard limit of quota ${number}`}
        words="hard"
        bytes={quota.hardBytes}
        onChange={hardBytes => set({ hardBytes })}
      />
      <SizeInput
        label={`Soft limit of quota ${number}`}
        words="soft"
        bytes={quota.softBytes}
        onChange={softBytes => set({ softBytes })}
      />
      <Grace number={number} days={quota.graceDays} onChange={graceDays => set({ graceDays })} />
    </div>
  </>
)

interface OfWhomProps {
  readonly number: number
  readonly of: Quota['of']
  readonly id: number
  readonly onChange: (id: number) => void
}

const OfWhom = ({ number, of, id, onChange }: OfWhomProps) => (
  <label className="mt-1 flex items-center gap-2 pl-6 text-sm text-second">
    {of === 'user' ? 'uid' : 'gid'}
    <input
      className="field mono max-w-[140px]"
      type="number"
      min={0}
      max={4_294_967_294}
      aria-label={`Number of the ${of} of quota ${number}`}
      value={Number.isNaN(id) ? '' : id}
      onChange={event => onChange(Math.trunc(event.target.valueAsNumber))}
    />
  </label>
)

interface OfProjectProps {
  readonly number: number
  readonly project: NonNullable<Quota['project']>
  readonly onChange: (project: NonNullable<Quota['project']>) => void
}

/** What a project is called, and where its other directories are. */
const OfProject = ({ number, project, onChange }: OfProjectProps) => (
  <div className="mt-1 grid grid-cols-[1fr_2fr] items-start gap-[6px] pl-6">
    <input
      className="field"
      aria-label={`Project of quota ${number}`}
      placeholder="its name"
      value={project.name}
      maxLength={60}
      autoComplete="off"
      onChange={event => onChange({ ...project, name: event.target.value })}
    />
    <textarea
      className="field mono h-auto"
      rows={2}
      aria-label={`Other paths of quota ${number}, one a line`}
      placeholder={'/loans/lab\n/photos/lab'}
      value={project.alsoAt.join('\n')}
      autoComplete="off"
      spellCheck={false}
      // A line that is being begun stays; what is empty in the end is let go when the field is left.
      onChange={event => onChange({ ...project, alsoAt: linesOf(event.target.value) })}
      onBlur={() => onChange({ ...project, alsoAt: project.alsoAt.filter(line => line.trim() !== '') })}
    />
  </div>
)

const linesOf = (text: string) => (text === '' ? [] : text.split('\n'))

interface GraceProps {
  readonly number: number
  readonly days: number
  readonly onChange: (days: number) => void
}

const Grace = ({ number, days, onChange }: GraceProps) => (
  <label className="flex items-center gap-1 text-sm text-second">
    <input
      className="field mono min-w-0"
      type="number"
      min={0}
      max={3650}
      aria-label={`Grace of quota ${number}, days`}
      value={Number.isNaN(days) ? '' : days}
      onChange={event => onChange(Math.trunc(event.target.valueAsNumber))}
    />
    d
  </label>
)

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
