import { useState } from 'react'

/** The token in what somebody pasted: the whole address that the server printed, or the token alone. */
export function tokenIn(text: string): string {
  const t = text.trim()
  return /token=([0-9a-f]+)/.exec(t)?.[1] ?? (/^[0-9a-f]{16,}$/.test(t) ? t : '')
}

/** The address that lets a browser in and leads back to where it was going. */
export const letInUrl = (token: string, to: string): string => `/start?token=${token}&to=${encodeURIComponent(to)}`

/** Lets a browser in that the server does not know, and leads on to where its link was going. */
export function SignIn({ says }: { says: string }) {
  const [text, setText] = useState('')
  const token = tokenIn(text)
  const here = window.location.pathname + window.location.search
  return (
    <main className="alone">
      <h1>This browser is not let in yet</h1>
      <p>{says}.</p>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (token) window.location.assign(letInUrl(token, here))
        }}
      >
        <label>
          Or paste that address here; your link is kept
          <input className="mono" value={text} size={60} autoFocus onChange={(e) => setText(e.target.value)} />
        </label>{' '}
        <button type="submit" className="asLink" disabled={!token}>
          Go on
        </button>
        {text.trim() !== '' && !token && (
          <p className="warn">That holds no token. It looks like /start?token=… with letters and digits.</p>
        )}
      </form>
    </main>
  )
}
