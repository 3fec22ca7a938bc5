import type { QueryClient } from '@tanstack/react-query'
import { refresh } from './queries'
import type { CodebaseStatus, Home, Progress } from './types'

interface Message {
  name: 'survey' | 'review'
  data: unknown
}

const channel = 'jantel-events'

/**
 * Follows what happens on the server. One page of the browser holds the
 * connection and tells the others; when it is closed another takes over.
 */
export function follow(qc: QueryClient): () => void {
  const others = new BroadcastChannel(channel)
  const stop = new AbortController()
  others.onmessage = (m: MessageEvent<Message>) => take(qc, m.data)
  void navigator.locks
    .request(channel, { signal: stop.signal }, () => {
      const source = new EventSource('/api/events')
      for (const name of ['survey', 'review'] as const) {
        source.addEventListener(name, (e) => {
          const m: Message = { name, data: JSON.parse((e as MessageEvent<string>).data) }
          take(qc, m)
          others.postMessage(m)
        })
      }
      return new Promise<void>((done) =>
        stop.signal.addEventListener('abort', () => {
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
  if (m.name === 'review') {
    refresh(qc, (m.data as { codebase: number }).codebase)
    return
  }
  const p = m.data as Progress
  if (p.state !== 'running') {
    refresh(qc, p.codebase)
    void qc.invalidateQueries({ queryKey: ['home'] })
    return
  }
  const put = (c: CodebaseStatus) => (c.id === p.codebase ? { ...c, running: p } : c)
  qc.setQueryData<Home>(['home'], (h) => h && { ...h, codebases: h.codebases.map(put) })
  qc.setQueryData<CodebaseStatus>(['codebase', p.codebase, 'status'], (c) => c && put(c))
}
