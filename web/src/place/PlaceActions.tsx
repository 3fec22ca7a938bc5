import { Link } from 'react-router'
import { useCodebase, useSettings } from '../api/queries'
import { CopyText } from './CopyText'
import { urlOf, useWhere, type View } from './place'

/** What can be done with any place: open it in the reader's own editor, and copy a link that names this survey. */
export function PlaceActions({ path, view }: { path: string; view: View }) {
  const { where } = useWhere()
  const status = useCodebase(where.id).data
  const settings = useSettings().data
  if (!status) return null
  const line = view === 'code' ? where.line : 0
  const link = `${window.location.origin}${urlOf({ id: where.id, view, at: path, line, end: line ? where.end : 0, survey: where.survey || status.latest })}`
  const onDisk = path === '.' ? status.root : `${status.root}/${path}`
  const editor =
    settings?.editor && status.root
      ? settings.editor.replaceAll('{path}', encodeURI(onDisk)).replaceAll('{line}', String(line || 1))
      : ''
  return (
    <span className="placeacts">
      {editor ? (
        <a
          href={editor}
          className="quiet"
          title={status.revision ? 'the working copy, which may differ from this revision' : onDisk}
        >
          open in my editor
        </a>
      ) : (
        status.root && (
          <Link to="/settings#editor" className="quiet" title="Say how your editor is opened">
            no editor set
          </Link>
        )
      )}
      <CopyText text={() => link} label="copy link" done="link copied" />
    </span>
  )
}
