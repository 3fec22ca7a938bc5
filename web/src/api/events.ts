import type { QueryClient } from '@tanstack/react-query'
import { keys } from './keys'
import { askAgain, take as takeChange } from './live'
import type { CodebaseStatus, Happened, Home, Progress } from './types'

interface Message {
  name: 'survey' | 'review' | 'again'
  data: unknown
}

const channel = 'jantel-events'

/** Whether events come: this page holds the connection and it is open, or another page holds it. */
let live = false
export const isLive = () => live

/**
 * Follows what happens on the server. One page of the browser holds the
 * connection and tells the others; when it is closed another takes over.
 */
export function follow(qc: QueryClient): () => void {
  const others = new BroadcastChannel(channel)
  const stop = new AbortController()
  others.onmessage = (m: MessageEvent<Message>) => take(qc, m.data)
  void navigator.locks.query().then((l) => {
    live ||= (l.held ?? []).some((x) => x.name === channel)
  })
  void navigator.locks
    .request(channel, { signal: stop.signal }, () => {
      const source = new EventSource('/api/events')
      const say = (m: Message) => {
        take(qc, m)
        others.postMessage(m)
      }
      let broken = false
      source.addEventListener('open', () => {
        live = true
        // What was missed is sent again, unless it is too long ago or another server answers now.
        if (broken) say({ name: 'again', data: null })
        broken = false
      })
      source.addEventListener('error', () => {
        live = false
        broken = true
      })
      for (const name of ['survey', 'review'] as const)
        source.addEventListener(name, (e) => say({ name, data: JSON.parse((e as MessageEvent<string>).data) }))
      return new Promise<void>((done) =>
        stop.signal.addEventListener('abort', () => {
          live = false
          source.close()
          done()
        }),
      )
    })
    .catch(() => undefined) // given up while waiting for the lock
  return () => {
    stop.abort()
    others.close()
  }
}

function take(qc: QueryClient, m: Message) {
  if (m.name === 'again') {
    askAgain(qc)
    return
  }
  if (m.name === 'review') {
    takeChange(qc, m.data as Happened)
    return
  }
  const p = m.data as Progress
  if (p.state !== 'running') {
    askAgain(qc, keys.codebase(p.codebase))
    askAgain(qc, keys.home)
    return
  }
  const put = (c: CodebaseStatus) => (c.id === p.codebase ? { ...c, running: p } : c)
  qc.setQueryData<Home>(keys.home, (h) => h && { ...h, codebases: h.codebases.map(put) })
  qc.setQueryData<CodebaseStatus>(keys.of(p.codebase, 'status'), (c) => c && put(c))
}
