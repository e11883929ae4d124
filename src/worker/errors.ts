import { WendrelError } from '@/core/errors'

/** The system is no longer in the estate. */
export class SystemGone extends WendrelError {
  readonly code = 'worker.system-gone'
  constructor() {
    super({
      what: 'The system could not be asked.',
      why: 'It is no longer in the estate.',
      remedy: 'Register it again.',
    })
  }
}

/** The route is no longer there. */
export class RouteGone extends WendrelError {
  readonly code = 'worker.route-gone'
  constructor() {
    super({ what: 'Nobody was told.', why: 'The route is no longer there.', remedy: 'Define it again.' })
  }
}

/** The directory is no longer there. */
export class DirectoryGone extends WendrelError {
  readonly code = 'worker.directory-gone'
  constructor() {
    super({ what: 'The directory was not read.', why: 'It is no longer in the estate.', remedy: 'Register it again.' })
  }
}

/** An administrator has asked the change to stop. */
export class StopWanted extends WendrelError {
  readonly code = 'worker.stop-wanted'
  constructor() {
    super({
      what: 'The change has stopped.',
      why: 'An administrator asked for it.',
      remedy: 'Let it go on, or undo what it has made.',
    })
  }
}

/** A change was carried out, but the test afterwards did not find what it should. */
export class NotProven extends WendrelError {
  readonly code = 'worker.not-proven'
  constructor(claims: readonly string[]) {
    super({
      what: 'The change was carried out but not proven.',
      why: `This did not hold: ${claims.join('; ')}.`,
      remedy: 'Look at the evidence. What was made has been left as it is.',
    })
  }
}

/** Another process has taken over the change, since this one lost its hold on the database. */
export class HoldLost extends WendrelError {
  readonly code = 'worker.hold-lost'
  constructor() {
    super({
      what: 'The change goes on in another process.',
      why: 'The connection that held it was lost.',
      remedy: 'Nothing needs to be done.',
    })
  }
}
