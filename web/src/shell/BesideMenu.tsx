import { useState } from 'react'
import { useHome, useSurveys } from '../api/queries'
import { Menu, type MenuItem } from '../parts/Menu'
import { useAddress } from '../place/place'
import { shortPath } from '../theme/ink'

/** Puts a second place, an earlier survey or another codebase beside this one. */
export function BesideMenu() {
  const { where, show } = useAddress()
  const [open, setOpen] = useState(false)
  const surveys = useSurveys(where.id, open).data ?? []
  const home = useHome(open).data
  const put = (at: string, codebase = 0, survey = 0) =>
    show({ with: at, 'with-codebase': codebase ? String(codebase) : '', 'with-survey': survey ? String(survey) : '' })
  const items: MenuItem[] = []
  if (where.pick && where.pick !== where.at)
    items.push({ id: 'picked', text: `What is picked: ${shortPath(where.pick, 40)}`, run: () => put(where.pick) })
  items.push({ id: 'here', text: 'This place, then go elsewhere', run: () => put(where.at) })
  const latest = surveys[0]?.id
  for (const s of surveys.filter((x) => x.id !== (where.survey || latest)).slice(0, 8))
    items.push({
      id: `survey ${s.id}`,
      text: `The survey of ${new Date(s.started).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}${s.revision ? `, ${s.revision.slice(0, 8)}` : ''}`,
      run: () => put(where.at, 0, s.id),
    })
  for (const c of (home?.codebases ?? []).filter((x) => x.id !== where.id && x.latest > 0).slice(0, 12))
    items.push({ id: `codebase ${c.id}`, text: `Another codebase: ${c.name}`, run: () => put('.', c.id) })
  if (where.beside)
    items.unshift({ id: 'none', text: 'Nothing beside', run: () => show({ with: '', 'with-codebase': '', 'with-survey': '' }) })
  return (
    <Menu
      name="beside"
      label="Beside …"
      hint="Look at a second place next to this one"
      items={items}
      open={open}
      onOpen={setOpen}
    />
  )
}
