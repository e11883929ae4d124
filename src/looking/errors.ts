import { WendrelError } from '@/core/errors'

/** Nobody has accepted who answers there, so nothing was told to it. */
export class NotAccepted extends WendrelError {
  readonly code = 'looking.not-accepted'
  constructor(address: string, why: string) {
    super({
      what: `Name and password were not sent to ${address}.`,
      why,
      remedy:
        'See who answers there, compare the fingerprint with the one on its own console, and accept exactly that.',
    })
  }
}

/** The host has no agent that could be asked, or is no longer in the estate. */
export class NoAgent extends WendrelError {
  readonly code = 'looking.no-agent'
  constructor() {
    super({
      what: 'No host was asked.',
      why: 'It has no agent, or is no longer in the estate.',
      remedy: 'Choose another host.',
    })
  }
}

/** What was given as an address is none. */
export class NoAddress extends WendrelError {
  readonly code = 'looking.no-address'
  constructor(text: string) {
    super({
      what: `"${text.slice(0, 80)}" is no address.`,
      why: 'It names neither a host nor a host with its protocol.',
      remedy: 'Write it like https://array.example or http://10.0.0.5:8080.',
    })
  }
}

/** The share is no longer in the estate, or its file service is not. */
export class NoShare extends WendrelError {
  readonly code = 'looking.no-share'
  constructor() {
    super({
      what: 'No host was asked.',
      why: 'The share, or its file service, is no longer in the estate.',
      remedy: 'Choose another share.',
    })
  }
}

/** Nobody is said as whom a share is to be tried, or nobody that a directory has. */
export class NobodyThere extends WendrelError {
  readonly code = 'looking.nobody'
  constructor() {
    super({
      what: 'No host was asked.',
      why: 'Over SMB people sign in by their account, and no directory has whoever is meant.',
      remedy: 'Choose a person of a directory.',
    })
  }
}
