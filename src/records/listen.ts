import { EventEmitter } from 'node:events'
import pg from 'pg'

/** What has changed in the records: a topic, and the table or change it is about. */
export interface Told {
  readonly topic: 'estate' | 'changes' | 'access' | 'back'
  readonly of: string
}

const againMilliseconds = 1000
const back: Told = { topic: 'back', of: '' }
const toldIn = (payload: string | undefined) => (payload === undefined ? back : (JSON.parse(payload) as Told))

/** What listens, and whether it does now. */
export interface Listening {
  readonly heard: EventEmitter<{ told: [Told] }>
  /** Whether what changes now is told. */
  readonly isListening: () => boolean
  readonly stop: () => Promise<void>
}

/**
 * Listens to what the database tells, over one connection that is made anew when it is lost. After a loss it tells `back`,
 * since what was told meanwhile is not known.
 */
export function listen(url: string): Listening {
  const heard = new EventEmitter<{ told: [Told] }>()
  heard.setMaxListeners(0)
  let client: pg.Client | undefined
  let isStopped = false
  let isListening = false
  const connect = async (isBack: boolean): Promise<void> => {
    const next = new pg.Client({ connectionString: url, application_name: 'wendrel listening', keepAlive: true })
    const lost = () => {
      if (client !== next) return
      client = undefined
      isListening = false
      if (!isStopped) setTimeout(() => void connect(true), againMilliseconds)
    }
    client = next
    next.on('error', lost)
    next.on('end', lost)
    next.on('notification', ({ payload }) => heard.emit('told', toldIn(payload)))
    try {
      await next.connect()
      await next.query('listen wendrel')
      isListening = client === next
      if (isBack) heard.emit('told', back)
    } catch {
      lost() // the database is away: the connection is tried again until it is back
    }
  }
  void connect(false)
  return {
    heard,
    isListening: () => isListening,
    stop: async () => {
      isStopped = true
      await client?.end()
    },
  }
}
