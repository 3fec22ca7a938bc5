import { lazy, Suspense, useMemo, useState, type ComponentType, type LazyExoticComponent } from 'react'
import { useCodebase } from '../api/queries'
import { Waiting } from '../parts/Waiting'
import type { ViewEntry } from '../parts/view'
import { ReviewProvider } from '../review/ReviewProvider'
import { BesideContext, useAddress, whereNow, type Wayfinder } from '../place/place'
import { views } from './views'
import { Differences } from './Differences'

const loaded: Record<string, LazyExoticComponent<ComponentType>> = Object.fromEntries(views.map((v) => [v.id, lazy(v.load)]))

/** The view of the place, and beside it the same view of a second one where there is one. */
export function Panes({ entry }: { entry: ViewEntry }) {
  const { where } = useAddress()
  const View = loaded[entry.id]
  if (!View) return null
  const alone = (
    <Suspense fallback={<Waiting />}>
      <View />
    </Suspense>
  )
  if (!where.beside) return alone
  return (
    <>
      <Differences />
      <div className="panes">
        <div className="pane-here">{alone}</div>
        <SecondPane>
          <Suspense fallback={<Waiting />}>
            <View />
          </Suspense>
        </SecondPane>
      </div>
    </>
  )
}

/** Gives what is drawn inside a place of its own: it moves the second place, and picks without the margin. */
function SecondPane({ children }: { children: React.ReactNode }) {
  const main = useAddress()
  const { show } = main
  const beside = main.where.beside
  const [picked, setPicked] = useState({ pick: '', line: 0, end: 0 })
  const [look, setLook] = useState<Record<string, string>>({})
  const codebase = useCodebase(beside?.id ?? 0).data
  const finder = useMemo<Wayfinder | null>(() => {
    if (!beside) return null
    const where = { ...main.where, ...beside, ...picked, feature: '', role: '' }
    return {
      where,
      query: new URLSearchParams(look),
      go: (to, more, replace) => {
        setPicked({ pick: to.pick ?? '', line: to.line ?? 0, end: to.end ?? 0 })
        // The second place is looked at as the first: another view is opened there with this one beside it.
        if (to.view && to.view !== whereNow().view)
          main.go({ view: to.view, at: to.at ?? beside.at, line: to.line ?? 0 }, more, replace)
        else show({ with: to.at ?? beside.at })
      },
      pick: (to) => setPicked((p) => ({ ...p, ...to })),
      show: (to) => setLook((l) => ({ ...l, ...(typeof to === 'function' ? to(new URLSearchParams(l)) : to) })),
    }
  }, [beside, main, picked, look, show])
  if (!finder || !beside) return null
  return (
    <section className="pane-beside" aria-label="Beside">
      <p className="besidehead">
        <span className="mono">
          {codebase && beside.id !== main.where.id ? `${codebase.name}: ` : ''}
          {beside.at === '.' ? 'the codebase' : beside.at}
        </span>
        {beside.survey > 0 && <small> survey {beside.survey}</small>}
        <button
          type="button"
          className="quiet"
          onClick={() => show({ with: '', 'with-codebase': '', 'with-survey': '' })}
          aria-label="Take away what stands beside"
        >
          take away
        </button>
      </p>
      <BesideContext value={finder}>
        {/* What is recorded in another codebase is recorded there. */}
        {beside.id === main.where.id ? children : <ReviewProvider id={beside.id}>{children}</ReviewProvider>}
      </BesideContext>
    </section>
  )
}
