import { intakeState } from '@/core/estate'
import type { IntakeRow } from './IntakeRow'

const quoted = (text: string) => (/[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)

/** The intake as CSV. Source: RFC 4180. */
export function csvOf(rows: readonly IntakeRow[]): string {
  const head = [
    'serial',
    'system',
    'place',
    'media',
    'protocol',
    'bytes',
    'model',
    'firmware',
    'state',
    'suggested role',
    'left over',
  ]
  const lines = rows.map(({ drive, systemName, place, suggestion }) => [
    drive.serial,
    systemName,
    place,
    drive.media,
    drive.protocol,
    `${drive.capacityBytes}`,
    drive.model,
    drive.firmware ?? '',
    intakeState(drive),
    suggestion?.role ?? '',
    drive.leftOver?.partitions.join('; ') ?? '',
  ])
  return [head, ...lines].map(line => line.map(quoted).join(',')).join('\r\n') + '\r\n'
}
