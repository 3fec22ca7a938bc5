import { useSaving } from '../parts/saving'
import { useReview, type ByHand } from './review'

/** What a step of setting things by hand is called in the history. */
export function stepName(all: readonly ByHand[]): string {
  const [first] = all
  if (!first) return 'Nothing was set'
  const where = all.length > 1 ? `${all.length} places` : first.target.replace('\t', ' → ')
  if (first.kind === 'term' || first.kind === 'instead')
    return `${first.gone ? 'Taken out of' : 'Put into'} the glossary: ${first.kind === 'term' ? first.target : first.value || first.target}`
  if (first.kind === 'rule')
    return first.gone ? `The rule ${first.target} counts again` : `The rule ${first.target} rests: ${first.value}`
  if (first.kind === 'gap')
    return first.gone ? `No longer on purpose: what ${where} lacks` : `On purpose: what ${where} lacks, ${first.value}`
  if (first.gone) return `Taken away: ${first.kind} of ${where}`
  return `Set by hand: ${first.kind} of ${where}${first.value ? ` is ${first.value}` : ''}`
}

/** Sets things by hand as one step that can be taken back, and tells how that goes. */
export function useByHand() {
  const { overrule } = useReview()
  const { run, error, busy } = useSaving()
  const set = (all: ByHand | readonly ByHand[], then?: () => void) => {
    const list = Array.isArray(all) ? (all as readonly ByHand[]) : [all as ByHand]
    run(overrule(stepName(list), list), then)
  }
  return { set, error, busy }
}
