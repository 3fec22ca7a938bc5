import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { stay, urlOf, useWhere } from '../place/place'
import { views } from './views'

/** A page that says one thing: that what was asked for is not there. */
export function Alone({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="alone">
      <h1>{title}</h1>
      {children}
    </main>
  )
}

export function NotSurveyed({ problem }: { problem: string }) {
  return (
    <section className="empty">
      <h1>Not surveyed yet</h1>
      {problem && <p className="warn">The last survey ended without a result: {problem}.</p>}
      <p>
        Its folders, its pattern and its smells will stand here. Start the survey from the <Link to="/">list of codebases</Link>.
      </p>
    </section>
  )
}

/** Said where an address names a view that Jantel does not have. */
export function UnknownView({ name }: { name: string }) {
  const { where } = useWhere()
  return (
    <section className="empty" role="alert">
      <h1>There is no view “{name}”</h1>
      <p>
        What there is:{' '}
        {views
          .filter((v) => v.says.codebase)
          .map((v) => (
            <Link key={v.id} to={urlOf({ ...stay(where), view: v.id, at: where.at })} className="inlist">
              {v.title}
            </Link>
          ))}
      </p>
    </section>
  )
}

/** Said where an address names a place that this survey does not hold. */
export function UnknownPlace({ path, says }: { path: string; says: string }) {
  const { where } = useWhere()
  // The whole of a codebase is always there: then it is the survey that is not.
  if (path === '.')
    return (
      <section className="empty" role="alert">
        <h1>This survey can not be shown</h1>
        <p>{says}</p>
        <p>
          What was recorded is kept. <Link to="/">Survey the codebase again</Link> to go on.
        </p>
      </section>
    )
  return (
    <section className="empty" role="alert">
      <h1>“{path}” is not here</h1>
      <p>{says}</p>
      <p>
        It may have been renamed, or the link may be of another survey. Search for it with <kbd>/</kbd>, or go to{' '}
        <Link to={urlOf({ ...stay(where), view: 'overview' })}>the whole codebase</Link>.
      </p>
    </section>
  )
}

/** What an address outside of all codebases comes to. */
export function NoSuchPage() {
  return (
    <Alone title="There is nothing at this address">
      <p>
        <Link to="/">All codebases</Link>
      </p>
    </Alone>
  )
}
