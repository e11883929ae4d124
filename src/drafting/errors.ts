import { WendrelError } from '@/core/errors'

/** The change is not there. */
export class NoSuchChange extends WendrelError {
  readonly code = 'drafting.no-such-change'
  constructor(id: string) {
    super({
      what: 'The change is not there.',
      why: `No change has the id ${id.slice(0, 40)}; a draft may have been discarded.`,
      remedy: 'Open the list of changes.',
    })
  }
}

/** The change has gone beyond a draft. */
export class NoDraft extends WendrelError {
  readonly code = 'drafting.no-draft'
  constructor(title: string, state: string) {
    super({
      what: `"${title}" was not altered.`,
      why: `It is ${state}, no longer a draft.`,
      remedy: 'Draft a new change.',
    })
  }
}

/** Somebody else has altered the draft since it was last seen here. */
export class EditedElsewhere extends WendrelError {
  readonly code = 'drafting.edited-elsewhere'
  constructor(title: string, by: string) {
    super({
      what: `"${title}" was not altered.`,
      why: `${by} has altered it meanwhile, also in another window perhaps.`,
      remedy: 'Look at it as it is now; then alter that.',
    })
  }
}

/** The plan is not the one that whoever decides has seen. */
export class OtherPlan extends WendrelError {
  readonly code = 'drafting.other-plan'
  constructor(title: string, by: string) {
    super({
      what: `"${title}" was not carried out.`,
      why: `Its plan is another than the one you saw: ${by} altered it last.`,
      remedy: 'Look at the plan as it is now, then carry it out.',
    })
  }
}

/** Another change is at work on what this one would touch. */
export class ClaimHeld extends WendrelError {
  readonly code = 'drafting.claim-held'
  constructor(title: string, number: number, other: string) {
    super({
      what: `"${title}" does not go on yet.`,
      why: `Change ${number}, "${other}", is at work on what it touches.`,
      remedy: 'Wait until that has ended.',
    })
  }
}

/** A check that must hold does not. */
export class NotReady extends WendrelError {
  readonly code = 'drafting.not-ready'
  constructor(title: string, whys: readonly string[]) {
    super({
      what: `"${title}" was not carried out.`,
      why: whys.join(' '),
      remedy: 'Satisfy what the checks name; the draft is kept.',
    })
  }
}

/** The estate is no longer what the plan rested on. */
export class PlanStale extends WendrelError {
  readonly code = 'drafting.plan-stale'
  constructor(
    title: string,
    readonly differences: readonly string[],
  ) {
    super({
      what: `"${title}" was not carried out.`,
      why: `Meanwhile: ${differences.join(' ')}`,
      remedy: 'The plan has been made anew. Look at what is different, then carry it out.',
    })
  }
}

/** The change is not in a state in which that can be done. */
export class NotNow extends WendrelError {
  readonly code = 'drafting.not-now'
  constructor(title: string, what: string, state: string) {
    super({
      what: `"${title}" was not ${what}.`,
      why: `It is ${state}.`,
      remedy: 'Look at the change for what can be done with it.',
    })
  }
}
