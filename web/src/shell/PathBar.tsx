import { useState } from 'react'
import { useSiblings } from '../api/queries'
import { Menu } from '../parts/Menu'
import { nearest } from '../parts/view'
import { useWhere, type Where } from '../place/place'
import { views } from './views'

/** The place as a path; each step opens its siblings. */
export function PathBar({ name }: { name: string }) {
  const { where } = useWhere()
  const parts = where.at === '.' ? [] : where.at.split('/')
  const steps = [{ path: '.', name }, ...parts.map((p, i) => ({ path: parts.slice(0, i + 1).join('/'), name: p }))]
  // In the middle of a deep path the steps are folded into one.
  const shown = steps.length > 6 ? [...steps.slice(0, 2), null, ...steps.slice(-3)] : steps
  return (
    <nav className="path mono" aria-label="Place">
      {shown.map((s, i) => (
        <span key={s?.path ?? 'fold'} className="step">
          {i > 0 && <i aria-hidden="true">/</i>}
          {s ? (
            <Step step={s} here={s.path === where.at} where={where} />
          ) : (
            <Step step={{ path: steps[steps.length - 4]?.path ?? '.', name: '…' }} here={false} where={where} />
          )}
        </span>
      ))}
    </nav>
  )
}

function Step({ step, here, where }: { step: { path: string; name: string }; here: boolean; where: Where }) {
  const { go } = useWhere()
  const [open, setOpen] = useState(false)
  const siblings = useSiblings({ ...where, at: step.path }, open && step.path !== '.')
  return (
    <span className="stepbox">
      <button
        type="button"
        className={here ? 'here' : ''}
        aria-current={here ? 'location' : undefined}
        onClick={() => go({ at: step.path })}
        title={step.path === '.' ? 'the whole codebase' : step.path}
      >
        {step.name}
      </button>
      {step.path !== '.' && (
        <Menu
          name="siblings"
          label="▾"
          say={`Beside ${step.name}`}
          className="more"
          waiting={siblings.isPending}
          open={open}
          onOpen={setOpen}
          items={(siblings.data ?? []).map((s) => ({
            id: s.path,
            text: s.file ? s.name : `${s.name}/`,
            here: s.path === step.path,
            run: () => go({ at: s.path, view: s.file ? 'code' : nearest(views, where.view, 'folder') }),
          }))}
        />
      )}
    </span>
  )
}
