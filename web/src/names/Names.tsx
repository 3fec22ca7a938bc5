import { Link } from 'react-router'
import { useNames } from '../api/queries'
import { Failed, Waiting } from '../parts/Waiting'
import { stay, urlOf, useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { ByName } from './ByName'
import { Conventions } from './Conventions'
import { Glossary } from './Glossary'
import { sides } from './saying'
import { Verbs } from './Verbs'
import { Words } from './Words'
import './names.css'

/** How the code of a place speaks: its words, how names are written, its verbs. */
export default function Names() {
  const { where, query, show } = useWhere()
  const side = sides.find((s) => s.id === query.get('side'))?.id ?? ''
  const words = query.get('words') ?? ''
  const short = query.get('short') === '1'
  const names = useNames(where, words, short)
  if (names.isError) return <Failed error={names.error} />
  if (!names.data) return <Waiting />
  const n = names.data
  return (
    <section className="names listview fills">
      <h1>Names{where.at === '.' ? '' : ` in ${where.at}`}</h1>
      <div className="filters">
        {sides.map((s) => (
          <button key={s.id} type="button" aria-pressed={side === s.id} onClick={() => show({ side: s.id, words: '' })}>
            {s.text}
          </button>
        ))}
        <span className="faint">
          {counted(n.names, 'name')} of definitions, parameters, locals, files and folders; {counted(n.all, 'different word')}
          {n.smells > 0 && (
            <>
              ;{' '}
              <Link to={urlOf({ ...stay(where), view: 'smells', at: where.at }, { group: 'facet', key: 'Names' })}>
                {counted(n.smells, 'smell')} of names
              </Link>
            </>
          )}
        </span>
      </div>
      {side === 'texts' ? (
        <ByName words={words} />
      ) : side === 'glossary' ? (
        <Glossary all={n.glossary} />
      ) : n.names === 0 ? (
        <p className="say">No name of own code was found here.</p>
      ) : side === 'cases' ? (
        <Conventions all={n.conventions} />
      ) : side === 'verbs' ? (
        <Verbs verbs={n.verbs} actions={n.actions} />
      ) : (
        <Words n={n} words={words} short={short} />
      )}
    </section>
  )
}
