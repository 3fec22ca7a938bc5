import { go } from '@codemirror/lang-go'
import { javascript } from '@codemirror/lang-javascript'
import { python } from '@codemirror/lang-python'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { Compartment, EditorState, RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state'
import { Decoration, EditorView, gutter, GutterMarker, lineNumbers, type DecorationSet } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { useEffect, useRef } from 'react'
import { inkStep } from '../theme/ink'

/** Something that stands beside a line. */
export interface Marked {
  line: number
  kind: 'smell' | 'finding'
  text: string
  strength: number
}

const colours = HighlightStyle.define([
  { tag: [tags.keyword, tags.modifier, tags.controlKeyword], class: 'tk-word' },
  { tag: [tags.string, tags.special(tags.string), tags.regexp], class: 'tk-text' },
  { tag: tags.comment, class: 'tk-note' },
  { tag: [tags.number, tags.bool, tags.null], class: 'tk-number' },
  {
    tag: [
      tags.definition(tags.variableName),
      tags.definition(tags.propertyName),
      tags.function(tags.definition(tags.variableName)),
      tags.className,
    ],
    class: 'tk-name',
  },
])

function languageOf(name: string): Extension {
  switch (name) {
    case 'TypeScript':
      return javascript({ typescript: true })
    case 'TSX':
      return javascript({ typescript: true, jsx: true })
    case 'JavaScript':
    case 'JSX':
      return javascript({ jsx: true })
    case 'Python':
      return python()
    case 'Go':
      return go()
    default:
      return []
  }
}

const setLines = StateEffect.define<{ from: number; to: number }>()
const pickedLine = Decoration.line({ class: 'pickedline' })

const picked = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(old, tr) {
    for (const e of tr.effects) {
      if (!e.is(setLines)) continue
      const b = new RangeSetBuilder<Decoration>()
      const last = Math.min(e.value.to, tr.state.doc.lines)
      for (let l = e.value.from; l > 0 && l <= last; l++) b.add(tr.state.doc.line(l).from, tr.state.doc.line(l).from, pickedLine)
      return b.finish()
    }
    return old
  },
  provide: (f) => EditorView.decorations.from(f),
})

class Mark extends GutterMarker {
  constructor(readonly m: Marked) {
    super()
  }
  override toDOM() {
    const e = document.createElement('span')
    e.className = this.m.kind === 'smell' ? `ink k${inkStep(this.m.strength)}` : 'findingmark'
    e.title = this.m.text
    e.textContent = this.m.kind === 'finding' ? '¶' : ''
    return e
  }
}

function marksGutter(marks: Marked[]): Extension {
  const byLine = new Map<number, Mark>()
  for (const m of marks) if (!byLine.has(m.line) || m.kind === 'finding') byLine.set(m.line, new Mark(m))
  return gutter({
    class: 'marksgutter',
    lineMarker: (view, block) => byLine.get(view.state.doc.lineAt(block.from).number) ?? null,
    initialSpacer: () => new Mark({ line: 0, kind: 'smell', text: '', strength: 0 }),
  })
}

interface Props {
  text: string
  language: string
  line: number
  end: number
  marks: Marked[]
  onPick: (line: number, end: number) => void
}

/**
 * The text with line numbers. Lines are picked by the mouse (a line number, a
 * drag over numbers or text) or by the arrow keys, with Shift for more.
 */
export function TextPane({ text, language, line, end, marks, onPick }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const beside = useRef(new Compartment())
  const state = useRef({ line, end, onPick })
  useEffect(() => {
    state.current = { line, end, onPick }
  })
  useEffect(() => {
    if (!host.current) return
    const lineAt = (v: EditorView, y: number) => v.state.doc.lineAt(v.lineBlockAtHeight(y - v.documentTop).from).number
    let anchor = 0
    const numbers = lineNumbers({
      domEventHandlers: {
        mousedown(v, block, e) {
          const l = v.state.doc.lineAt(block.from).number
          const s = state.current
          anchor = (e as MouseEvent).shiftKey && s.line ? s.line : l
          s.onPick(Math.min(anchor, l), Math.max(anchor, l))
          const drag = (m: MouseEvent) => {
            const to = lineAt(v, m.clientY)
            state.current.onPick(Math.min(anchor, to), Math.max(anchor, to))
          }
          const stop = () => {
            document.removeEventListener('mousemove', drag)
            document.removeEventListener('mouseup', stop)
          }
          document.addEventListener('mousemove', drag)
          document.addEventListener('mouseup', stop)
          return true
        },
      },
    })
    const nonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? ''
    const v = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: text,
        extensions: [
          numbers,
          beside.current.of(marksGutter([])),
          picked,
          syntaxHighlighting(colours),
          languageOf(language),
          EditorState.readOnly.of(true),
          EditorView.editable.of(false),
          EditorView.cspNonce.of(nonce),
          EditorView.contentAttributes.of({ 'aria-label': 'Text of the file', tabindex: '-1' }),
          EditorView.domEventHandlers({
            mouseup(_, v) {
              const sel = window.getSelection()
              if (
                !sel ||
                sel.isCollapsed ||
                !sel.anchorNode ||
                !sel.focusNode ||
                !v.contentDOM.contains(sel.anchorNode) ||
                !v.contentDOM.contains(sel.focusNode)
              )
                return
              const a = v.state.doc.lineAt(v.posAtDOM(sel.anchorNode, sel.anchorOffset)).number
              const b = v.state.doc.lineAt(v.posAtDOM(sel.focusNode, sel.focusOffset)).number
              state.current.onPick(Math.min(a, b), Math.max(a, b))
            },
          }),
        ],
      }),
    })
    v.scrollDOM.tabIndex = 0
    v.scrollDOM.setAttribute('role', 'region')
    v.scrollDOM.setAttribute('aria-label', 'Text of the file; arrow keys pick lines, with Shift several')
    let head = 0
    v.scrollDOM.addEventListener('keydown', (e) => {
      const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 20, PageUp: -20, Home: -1e9, End: 1e9 }[e.key]
      const s = state.current
      if (e.key === 'Escape') {
        s.onPick(0, 0)
        return
      }
      if (!by || e.ctrlKey || e.metaKey || e.altKey) return
      e.preventDefault()
      const clamp = (l: number) => Math.max(1, Math.min(v.state.doc.lines, l))
      if (!s.line) {
        head = anchor = clamp(lineAt(v, v.scrollDOM.getBoundingClientRect().top + 4))
      } else if (e.shiftKey) {
        if (anchor !== s.line && anchor !== s.end) anchor = s.line
        head = clamp((anchor === s.line ? s.end : s.line) + by)
      } else {
        head = anchor = clamp((by > 0 ? s.end : s.line) + by)
      }
      s.onPick(Math.min(anchor, head), Math.max(anchor, head))
      v.dispatch({ effects: EditorView.scrollIntoView(v.state.doc.line(head).from, { y: 'nearest', yMargin: 60 }) })
    })
    view.current = v
    return () => {
      v.destroy()
      view.current = null
    }
  }, [text, language])
  useEffect(() => {
    view.current?.dispatch({ effects: beside.current.reconfigure(marksGutter(marks)) })
  }, [marks, text, language])
  useEffect(() => {
    const v = view.current
    if (!v) return
    const effects: StateEffect<unknown>[] = [setLines.of({ from: line, to: end })]
    if (line > 0 && line <= v.state.doc.lines) {
      const at = v.lineBlockAt(v.state.doc.line(line).from)
      const top = v.scrollDOM.scrollTop
      const height = v.scrollDOM.clientHeight
      if (at.top < top || at.bottom > top + height)
        effects.push(EditorView.scrollIntoView(v.state.doc.line(line).from, { y: 'start', yMargin: height / 4 }))
    }
    v.dispatch({ effects })
  }, [line, end, text, language])
  return <div ref={host} className="textpane" />
}
