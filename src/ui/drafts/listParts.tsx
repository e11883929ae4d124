import type { AccessEntry, ExportRule, ShareGrant } from '@/core/access'
import type { Share } from '@/core/estate'
import { AccessListField } from './AccessListField'
import { ExportRulesField } from './ExportRulesField'
import { FileRulesField } from './FileRulesField'
import { QuotasField } from './QuotasField'
import { textOf, type PartProps } from './PartProps'
import { CertificateField, GrantsField, PersonField } from './peopleFields'

export const ExportRules = ({ field, value, error, onChange }: PartProps) => (
  <ExportRulesField
    label={field.label}
    value={Array.isArray(value) ? (value as readonly ExportRule[]) : []}
    error={error}
    onChange={onChange}
  />
)

export const AccessList = ({ field, value, error, onChange }: PartProps) => (
  <AccessListField
    label={field.label}
    value={(value ?? []) as readonly AccessEntry[]}
    error={error}
    onChange={onChange}
  />
)

export const Quotas = ({ field, value, error, onChange }: PartProps) => (
  <QuotasField label={field.label} value={(value ?? []) as Share['quotas']} error={error} onChange={onChange} />
)
export const FileRules = ({ field, value, error, onChange }: PartProps) => (
  <FileRulesField label={field.label} value={(value ?? []) as Share['fileRules']} error={error} onChange={onChange} />
)

export const Grants = ({ field, value, error, onChange }: PartProps) => (
  <GrantsField label={field.label} value={(value ?? []) as readonly ShareGrant[]} error={error} onChange={onChange} />
)
export const Person = ({ field, value, error, onChange }: PartProps) => (
  <PersonField label={field.label} hint={field.hint} value={textOf(value)} error={error} onChange={onChange} />
)
export const Certificate = ({ field, value, error, onChange, intent, set }: PartProps) => (
  <CertificateField
    label={field.label}
    hint={field.hint}
    value={textOf(value)}
    error={error}
    address={textOf(intent['address'])}
    onChange={onChange}
    onAccept={(fingerprint, baseDn) =>
      set({
        [field.field]: fingerprint,
        ...(baseDn === undefined || textOf(intent['baseDn']) !== '' ? {} : { baseDn }),
      })
    }
  />
)
