import { Button } from '@chakra-ui/react'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { follow } from '../api/events'
import { upload } from '../api/client'
import { useHome, useSettings } from '../api/queries'
import { useSurveyActions, useTakeIn } from '../api/changes'
import type { CodebaseStatus } from '../api/types'
import { useTheme } from '../parts/theme'
import { Waiting } from '../parts/Waiting'
import { figure } from '../theme/ink'
import { ProgressLine } from '../parts/ProgressLine'

/** The codebases, and the form that takes in another. */
export default function Home() {
  const qc = useQueryClient()
  const home = useHome()
  const settings = useSettings().data
  useTheme(settings?.theme ?? 'auto')
  useEffect(() => follow(qc), [qc])
  useEffect(() => {
    document.title = 'Jantel'
  }, [])
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
                  <Item key={c.id} c={c} />
                ))}
              </ul>
            )}
          </section>
          <TakeIn allowed={home.data.allowed} />
        </>
      ) : (
        !home.isError && <Waiting />
      )}
    </main>
  )
}

function Item({ c }: { c: CodebaseStatus }) {
  const actions = useSurveyActions(c.id)
  const [sure, setSure] = useState(false)
  const last = c.last
  return (
    <li>
      <div>
        {c.latest > 0 ? <Link to={`/c/${c.id}/overview`}>{c.name}</Link> : <b>{c.name}</b>}
        <small className="mono">
          {c.path}
          {c.revision && ` at ${c.revision}`}
        </small>
      </div>
      {c.running ? (
        <ProgressLine progress={c.running} />
      ) : (
        <p>
          {last && <LastSurvey c={c} />}
          <button type="button" className="quiet" onClick={() => actions.start.mutate()} disabled={actions.start.isPending}>
            {c.latest > 0 ? 'Survey again' : 'Survey it'}
          </button>
          {sure ? (
            <>
              <button type="button" className="quiet warn" onClick={() => actions.remove.mutate()}>
                Remove it with its findings
              </button>
              <button type="button" className="quiet" onClick={() => setSure(false)}>
                Keep it
              </button>
            </>
          ) : (
            <button type="button" className="quiet" onClick={() => setSure(true)}>
              Remove …
            </button>
          )}
        </p>
      )}
      {actions.start.isError && (
        <p className="warn" role="alert">
          {actions.start.error.message}
        </p>
      )}
    </li>
  )
}

function LastSurvey({ c }: { c: CodebaseStatus }) {
  const last = c.last
  if (!last) return null
  const when = new Date(last.ended ?? last.started).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
  if (last.state === 'finished')
    return (
      <span>
        {figure(last.files)} files, {figure(last.lines)} lines, surveyed {when} in {last.seconds.toFixed(1)} s.
      </span>
    )
  return (
    <span className="unsure">
      The last survey was {last.state === 'failed' ? 'given up' : last.state} on {when}
      {last.problem && last.problem !== 'cancelled' ? `: ${last.problem}` : ''}.
      {c.latest > 0 ? ' The one before still stands.' : ''}
    </span>
  )
}

function TakeIn({ allowed }: { allowed: string[] }) {
  const add = useTakeIn()
  const [path, setPath] = useState('')
  const [revision, setRevision] = useState('')
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)
  const file = useRef<HTMLInputElement>(null)
  const take = async (where: () => Promise<{ path: string; revision?: string }>) => {
    setBusy(true)
    setProblem('')
    try {
      await add.mutateAsync(await where())
      setPath('')
      setRevision('')
    } catch (e) {
      setProblem((e as Error).message)
    } finally {
      setBusy(false)
    }
  }
  return (
    <section>
      <h2>Take in a codebase</h2>
      <form
        className="takein"
        onSubmit={(e) => {
          e.preventDefault()
          void take(() => Promise.resolve({ path, revision: revision || undefined }))
        }}
      >
        <label className="grow">
          Folder, Git repository or archive on this machine
          <input
            className="mono"
            value={path}
            required
            placeholder={allowed[0] ?? '/home/you/project'}
            onChange={(e) => setPath(e.target.value)}
          />
        </label>
        <label>
          Revision, for Git
          <input
            className="mono"
            value={revision}
            placeholder="empty: as it is"
            aria-describedby="revision-hint"
            onChange={(e) => setRevision(e.target.value)}
          />
        </label>
        <Button type="submit" size="sm" loading={busy}>
          Take it in
        </Button>
      </form>
      <p className="faint" id="revision-hint">
        A revision is a branch, a tag or a commit; without one the folder is read as it stands.
      </p>
      <p>
        Or send an archive:{' '}
        <input
          ref={file}
          type="file"
          accept=".zip,.tar,.gz,.tgz,.zst"
          aria-label="Archive to send"
          disabled={busy}
          onChange={(e) => {
            const f = e.target.files?.[0]
            if (f)
              void take(async () => ({ path: await upload(f) })).then(() => {
                if (file.current) file.current.value = ''
              })
          }}
        />
        <small> .zip, .tar, .tar.gz or .tar.zst; it is read as it is, never unpacked to disk</small>
      </p>
      {problem && (
        <p className="warn" role="alert">
          {problem}
        </p>
      )}
      <p className="faint">
        {allowed.length > 0 ? (
          <>
            Folders that may be surveyed: <span className="mono">{allowed.join(', ')}</span>. Start the server with --allow for
            others.
          </>
        ) : (
          'No folder may be surveyed yet: start the server with --allow and a folder.'
        )}
      </p>
    </section>
  )
}
