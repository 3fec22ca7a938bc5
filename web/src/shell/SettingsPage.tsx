import { useEffect } from 'react'
import { Link } from 'react-router'
import { useHome, useSettings } from '../api/queries'
import { useTheme } from '../parts/theme'
import { KeyTable } from './KeyTable'
import { YourSettings } from './YourSettings'

/** All settings on one page. */
export default function SettingsPage() {
  const settings = useSettings().data
  const home = useHome().data
  useTheme(settings?.theme ?? 'auto')
  useEffect(() => {
    document.title = 'Settings · Jantel'
    if (settings && window.location.hash) document.getElementById(window.location.hash.slice(1))?.querySelector('input')?.focus()
  }, [settings])
  return (
    <main className="settings">
      <header>
        <h1>
          <Link to="/" className="mark">
            Jantel
          </Link>{' '}
          Settings
        </h1>
      </header>
      <div className="keycard">
        <section>
          <YourSettings />
          <h3>This server</h3>
          <p>
            Folders that may be surveyed: <span className="mono">{home?.allowed.join(', ') || 'none'}</span>. Others are allowed
            by starting it with <code>--allow</code> and a folder.
          </p>
        </section>
        <section>
          <h3>Keys</h3>
          <KeyTable />
        </section>
      </div>
    </main>
  )
}
