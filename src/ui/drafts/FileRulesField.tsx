'use client'
import type { FileRule } from '@/core/filetree'
import { Select } from '../parts/Select'
import { LineHead, ListField, type LineProps, type ListFieldProps } from './ListField'

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

const newRule: FileRule = { pattern: '*', content: 'any', verdict: 'deny' }

/** Kinds of files that are refused or told of, by name and by what is in them. */
export const FileRulesField = ({ label, value, error, onChange }: ListFieldProps<FileRule>) => (
  <ListField {...{ label, value, error, onChange }} fresh={newRule} addWords="Add a kind" Line={FileRuleLine} />
)

const FileRuleLine = ({ item: rule, number, set, remove }: LineProps<FileRule>) => (
  <LineHead number={number} what="kind" remove={remove}>
    <input
      className="field mono w-[96px]"
      aria-label={`Name of kind ${number}`}
      placeholder="*.mp3"
      value={rule.pattern}
      maxLength={255}
      autoComplete="off"
      spellCheck={false}
      onChange={event => set({ pattern: event.target.value })}
    />
    <Select
      aria-label={`Content of kind ${number}`}
      className="min-w-0 flex-1"
      value={rule.content}
      options={contents as readonly { readonly value: FileRule['content']; readonly words: string }[]}
      onChange={content => set({ content })}
    />
    <Select
      aria-label={`What happens with kind ${number}`}
      className="w-[92px]"
      value={rule.verdict}
      options={verdicts}
      onChange={verdict => set({ verdict })}
    />
  </LineHead>
)
