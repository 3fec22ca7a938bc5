import { Button } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useTakeIn } from '../api/changes'
import { upload } from '../api/client'
import { FolderChoice } from './FolderChoice'

/** Takes in a codebase: a folder or repository chosen or typed, or an archive that is sent. */
export function TakeIn({ allowed }: { allowed: string[] }) {
  const add = useTakeIn()
  const navigate = useNavigate()
  const [path, setPath] = useState('')
  const [revision, setRevision] = useState('')
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)
  const file = useRef<HTMLInputElement>(null)
  const take = async (where: () => Promise<{ path: string; revision?: string }>) => {
    setBusy(true)
    setProblem('')
    try {
      const made = await add.mutateAsync(await where())
      // What it finds is seen where it will stand.
      void navigate(`/c/${made.id}/overview`)
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
      {allowed.length > 0 && <FolderChoice onChoose={setPath} />}
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
