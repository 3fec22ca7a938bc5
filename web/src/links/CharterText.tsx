import {
  autocompletion,
  closeBrackets,
  completionKeymap,
  snippet,
  startCompletion,
  type CompletionContext,
} from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { yaml } from '@codemirror/lang-yaml'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, setDiagnostics } from '@codemirror/lint'
import { Annotation, EditorState } from '@codemirror/state'
import { drawSelection, EditorView, keymap, lineNumbers, placeholder } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import api, { answer } from '../api/client'
import { charterSchema, useRules } from '../api/queries'
import type { CharterState } from '../api/types'
import { useWhere } from '../place/place'
import { hintsAt, layersIn, spotAt, thresholdsOf, type Known, type Schema } from './hints'
import { returning } from './written'

const colours = HighlightStyle.define([
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], class: 'tk-word' },
  { tag: tags.string, class: 'tk-text' },
  { tag: tags.comment, class: 'tk-note' },
  { tag: [tags.number, tags.bool], class: 'tk-number' },
])

const example =
  'layers:\n  - name: logic\n    holds: ["src/logic/**"]\n    may: [data]\n  - name: data\n    holds: ["src/data/**"]'

/** Marks a text that comes in from outside: nobody has written it here, so it is no change to be saved. */
const fromOutside = Annotation.define<boolean>()

/** A list that is begun is ended as well, with the cursor in it. */
const put = (text: string) => (text.endsWith('[') ? snippet(text + '${}]') : text)

/** The charter as YAML: what may stand at the cursor is offered while typing, and faults stand at their line. */
export default function CharterText({
  text,
  faults,
  onText,
}: {
  text: string
  faults: CharterState['faults']
  onText: (t: string) => void
}) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const { where } = useWhere()
  const qc = useQueryClient()
  const rules = useRules().data
  const first = useRef(text)
  const own = useRef(returning())
  const now = useRef({ onText, qc, rules, where })
  useEffect(() => {
    now.current = { onText, qc, rules, where }
  })
  useEffect(() => {
    if (!host.current) return
    const known = (doc: string): Known => ({
      layers: layersIn(doc),
      thresholds: thresholdsOf(now.current.rules ?? []),
      places: async (typed) => {
        const { id, survey } = now.current.where
        const q = typed.replace(/[/*]+$/, '')
        if (q === '') return []
        const found = await answer(
          api.GET('/api/codebases/{id}/places', { params: { path: { id }, query: { q, survey: survey || undefined } } }),
        )
        return found.map((p) => p.path).filter((p) => p !== '.')
      },
    })
    const source = async (c: CompletionContext) => {
      const doc = c.state.doc.toString()
      const spot = spotAt(doc, c.pos)
      if (!spot || (!c.explicit && spot.typed === '')) return null
      // Whoever types before the schema is here waits for it; to offer nothing would be for good: nothing asks again.
      const schema = (await now.current.qc.ensureQueryData(charterSchema)) as Schema
      const hints = await hintsAt(spot, schema, known(doc))
      return {
        from: spot.from,
        options: hints.map((h) => ({ label: h.label, detail: h.detail, apply: put(h.apply ?? h.label) })),
        // Places are looked for anew with each letter.
        validFor: spot.at === 'value' ? undefined : /^[\w.-]*$/,
        filter: !['holds', 'places', 'from', 'to'].includes(spot.key),
      }
    }
    const nonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? ''
    const v = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first.current,
        extensions: [
          lineNumbers(),
          lintGutter(),
          history(),
          drawSelection(),
          closeBrackets(),
          yaml(),
          syntaxHighlighting(colours),
          placeholder(example),
          autocompletion({ override: [source], icons: false, interactionDelay: 0 }),
          // Tab leaves the text, as it leaves any field.
          keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
          EditorView.cspNonce.of(nonce),
          EditorView.contentAttributes.of({ 'aria-label': 'Charter as YAML', spellcheck: 'false' }),
          EditorView.updateListener.of((u) => {
            const written = u.transactions.some((t) => t.docChanged && !t.annotation(fromOutside))
            if (!written) return
            own.current.handedUp(u.state.doc.toString())
            now.current.onText(u.state.doc.toString())
          }),
        ],
      }),
    })
    view.current = v
    return () => {
      v.destroy()
      view.current = null
    }
  }, [])
  useEffect(() => {
    // What was written elsewhere, by the form or from how the code is, comes in whole.
    const v = view.current
    if (v && !own.current.isOwn(text) && v.state.doc.toString() !== text)
      v.dispatch({ changes: { from: 0, to: v.state.doc.length, insert: text }, annotations: fromOutside.of(true) })
  }, [text])
  useEffect(() => {
    const v = view.current
    if (!v) return
    const found = faults
      .filter((f) => f.line > 0)
      .map((f) => {
        const l = v.state.doc.line(Math.min(f.line, v.state.doc.lines))
        return { from: l.from, to: l.to, severity: 'error' as const, message: f.text }
      })
    v.dispatch(setDiagnostics(v.state, found))
  }, [faults])
  return (
    <>
      <div ref={host} className="chartertext mono" />
      <p className="faint">
        <button
          type="button"
          className="quiet"
          onClick={() => {
            const v = view.current
            if (!v) return
            v.focus()
            startCompletion(v)
          }}
        >
          What may stand here
        </button>{' '}
        (Ctrl and Space in the text)
      </p>
    </>
  )
}
