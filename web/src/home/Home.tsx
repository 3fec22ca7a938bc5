import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { Problem } from '../api/client'
import { useHome, useSettings } from '../api/queries'
import { SignIn } from '../parts/SignIn'
import { useTheme } from '../parts/theme'
import { Waiting } from '../parts/Waiting'
import { Item } from './Item'
import { TakeIn } from './TakeIn'
import './home.css'

/** The codebases, and the form that takes in another. */
export default function Home() {
  const home = useHome()
  const settings = useSettings().data
  const [said, setSaid] = useState('')
  useTheme(settings?.theme ?? 'auto')
  useEffect(() => {
    document.title = 'Jantel'
  }, [])
  if (home.error instanceof Problem && home.error.status === 401) return <SignIn says={home.error.message} />
  return (
    <main className="home">
      <header>
        <h1 className="mark">Jantel</h1>
        <p className="say">Take in a codebase, see how it is laid out, and write down what to do about it.</p>
      </header>
      {home.isError && (
        <p className="warn" role="alert">
          {home.error.message}
        </p>
      )}
      {home.data ? (
        <>
          <section>
            <h2>Codebases</h2>
            {home.data.codebases.length === 0 ? (
              <p className="faint">None yet. What you take in below will stand here, with its newest survey.</p>
            ) : (
              <ul className="codebases">
                {home.data.codebases.map((c) => (
                  <Item key={c.id} c={c} onSaid={setSaid} />
                ))}
              </ul>
            )}
            {said && <p role="status">{said}</p>}
          </section>
          <TakeIn allowed={home.data.allowed} />
          <p className="faint">
            <Link to="/settings">Settings</Link>
          </p>
        </>
      ) : (
        !home.isError && <Waiting />
      )}
    </main>
  )
}
