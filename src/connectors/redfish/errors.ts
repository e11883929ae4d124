import { WendrelError } from '@/core/errors'

/** Name or password are wrong. */
export class SignInRefused extends WendrelError {
  readonly code = 'system.sign-in-refused'
  constructor(address: string) {
    super({
      what: `${address} did not accept the name and password.`,
      why: 'It says that they are wrong, or that the account is locked.',
      remedy: 'Correct the name or the password; nothing has been changed on the system.',
    })
  }
}

/** Another system answers than the one that was registered. */
export class OtherIdentity extends WendrelError {
  readonly code = 'system.other-identity'
  constructor(address: string, expected: string, found: string | null) {
    super({
      what: `${address} was not spoken to.`,
      why: `The system that was registered has the UUID ${expected}; what answers there now says ${found === null ? 'none' : JSON.stringify(found.slice(0, 80))}.`,
      remedy: 'Find out who answers there. If the system was exchanged, register the new one under its own name.',
    })
  }
}

/** A call that destroys has found another object than the one it was meant for. */
export class OtherObject extends WendrelError {
  readonly code = 'system.other-object'
  constructor(locator: string, expected: string, found: string) {
    super({
      what: `Nothing was done to ${locator}.`,
      why: `${expected || 'Something without a durable name'} was expected there, and ${found || 'something without a durable name'} was found.`,
      remedy: 'The records are read anew; look at the object and draft the change again.',
    })
  }
}

/** Something answers, but it is not a storage system. */
export class NoStorageSystem extends WendrelError {
  readonly code = 'system.no-storage-system'
  constructor(address: string, why: string, options?: ErrorOptions) {
    super(
      {
        what: `${address} is not a storage system that Wendrel can manage.`,
        why,
        remedy: "Give the address of the system's management interface that speaks Redfish and Swordfish.",
      },
      options,
    )
  }
}

/** The layout has no word in the standard. */
export class NoSuchLayout extends WendrelError {
  readonly code = 'system.no-such-layout'
  constructor(address: string) {
    super({
      what: `${address} cannot be asked for this layout.`,
      why: 'The standard names mirrors of two or three copies and one to three parity drives only.',
      remedy: 'Choose one of these.',
    })
  }
}
