import createClient from 'openapi-fetch'
import type { paths } from './schema'
import type { Finding } from './types'

const api = createClient<paths>({ baseUrl: '/' })

/** What the server says went wrong. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** What another person made of the finding in the meantime. */
    readonly current?: Finding,
  ) {
    super(message)
  }
}

function problem(status: number, error: unknown): Problem {
  const e = (error ?? {}) as { detail?: string; title?: string; current?: Finding; errors?: { message?: string }[] }
  const more = e.errors?.map((x) => x.message).filter(Boolean)
  return new Problem(status, [e.detail ?? e.title ?? `The server answered ${status}.`, ...(more ?? [])].join(': '), e.current)
}

/** The data of an answer, or the problem thrown. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let r
  try {
    r = await call
  } catch {
    throw new Problem(0, 'The server can not be reached. What you typed is kept; try again when it runs.')
  }
  if (!r.response.ok) throw problem(r.response.status, r.error)
  return r.data as T
}

/** Sends an archive and returns the path under which it can be taken in. */
export async function upload(file: File): Promise<string> {
  return (await sendFile<{ upload: string }>(`/api/uploads?name=${encodeURIComponent(file.name)}`, file)).upload
}

/** Sends the bytes of a file and returns what the server made of them. */
export async function sendFile<T>(to: string, file: Blob): Promise<T> {
  const headers = { 'Content-Type': 'application/octet-stream' }
  const r = await fetch(to, { method: 'POST', headers, body: file })
  const told: unknown = await r.json()
  if (!r.ok) throw problem(r.status, told)
  return told as T
}

/** Headers of a change that has no body. */
export const bare = { headers: { 'Content-Type': 'application/json' } }

export default api
