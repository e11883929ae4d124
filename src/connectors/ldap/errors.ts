import { WendrelError } from '@/core/errors'

/** What was given as the address of a directory is none. */
export class NoDirectoryAddress extends WendrelError {
  readonly code = 'connection.directory-address'
  constructor(text: string) {
    super({
      what: `"${text.slice(0, 80)}" is no address of a directory.`,
      why: 'Passwords go to a directory, so that only LDAP over TLS is spoken.',
      remedy: 'Write it like ldaps://directory.example or ldaps://10.0.0.5:636.',
    })
  }
}

/** Another certificate is shown there than the one that was accepted. */
export class OtherDirectory extends WendrelError {
  readonly code = 'connection.directory-other'
  constructor(address: string) {
    super({
      what: `Nothing was said to ${address}.`,
      why: 'It shows another certificate than the one that was accepted.',
      remedy: 'Compare the fingerprint with the one on its own console; accept exactly that.',
    })
  }
}

/** The directory answers, and refuses. */
export class DirectoryRefused extends WendrelError {
  readonly code = 'connection.directory-refused'
  constructor(address: string, why: string) {
    super({
      what: `${address} refused what was asked of it.`,
      why,
      remedy: 'Look at the name by which it is read, its password, and its base.',
    })
  }
}

/** The directory does not answer, or not to the end. */
export class DirectorySilent extends WendrelError {
  readonly code = 'connection.directory-silent'
  constructor(address: string, why: string) {
    super({
      what: `${address} does not answer.`,
      why,
      remedy: 'Look whether it runs, and whether something on the way bars its port.',
    })
  }
}

/** The directory sends more than any would. */
export class DirectoryUnbounded extends WendrelError {
  readonly code = 'connection.directory-unbounded'
  constructor(address: string, why: string) {
    super({
      what: `The answer of ${address} was not read to its end.`,
      why,
      remedy: 'Give a base that has less below it.',
    })
  }
}
