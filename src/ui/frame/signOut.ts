import { ask } from '../api'
import { forgetUnsent } from '../drafts/unsent'
import { forgetRecent } from './recent'

/** Ends the session; nothing stays in this browser of what was looked at or typed. */
export async function signOut(): Promise<void> {
  await ask('DELETE', '/session')
  forgetRecent()
  forgetUnsent()
  window.location.assign('/sign-in')
}
