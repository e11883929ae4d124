import type { Finding } from './Finding'

type Rest = Omit<Finding, 'key' | 'check' | 'gravity' | 'title' | 'explainedBy' | 'draft'> &
  Partial<Pick<Finding, 'explainedBy' | 'draft'>>

/** A finding by its check and what it is about; without causes and without a draft unless they are given. */
export const found = (check: string, of: string, gravity: Finding['gravity'], title: string, rest: Rest): Finding => ({
  key: `${check}/${of}`,
  check,
  gravity,
  title,
  explainedBy: [],
  draft: null,
  ...rest,
})
