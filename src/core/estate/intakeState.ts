import type { Drive } from './schemas'

/** The states in which a drive stands in the intake, in the order in which they are shown. */
export const intakeStates = ['unassigned', 'foreign', 'spare', 'in use', 'boot', 'failing', 'failed'] as const
export type IntakeState = (typeof intakeStates)[number]

/** What can be done with a drive, in one word. What is broken counts before what it is used for. */
export function intakeState(drive: Pick<Drive, 'state' | 'role' | 'isBoot' | 'leftOver'>): IntakeState {
  if (drive.state !== 'fine') return drive.state
  if (drive.isBoot) return 'boot'
  if (drive.role === 'spare') return 'spare'
  if (drive.role !== 'unassigned') return 'in use'
  return drive.leftOver === null ? 'unassigned' : 'foreign'
}
