import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { Compartment, EditorState, type StateEffect } from '@codemirror/state'
import { EditorView, keymap, lineNumbers } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { useEffect, useRef } from 'react'
import { openSearchPanel, search, searchKeymap } from '@codemirror/search'
import { coloursOf } from './colours'
import { differing, marksGutter, picked, setLines, type Marked } from './marks'

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

interface Props {
  text: string
  language: string
  line: number
  end: number
  marks: Marked[]
  /** Lines that differ from the text beside. */
  differs: readonly number[]
  onPick: (line: number, end: number) => void
}

/**
 * The text with line numbers. Lines are picked by the mouse (a line number, a
 * drag over numbers or text) or by the arrow keys, with Shift for more.
 */
export function TextPane({ text, language, line, end, marks, differs, onPick }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const beside = useRef(new Compartment())
  const coloured = useRef(new Compartment())
  const changed = useRef(new Compartment())
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
          coloured.current.of([]),
          changed.current.of(differing([])),
          search({ top: true }),
          keymap.of(searchKeymap),
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
    // Wherever the keyboard is: to find something here means in this text.
    const find = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey || e.shiftKey || e.key.toLowerCase() !== 'f') return
      e.preventDefault()
      openSearchPanel(v)
    }
    document.addEventListener('keydown', find)
    return () => {
      document.removeEventListener('keydown', find)
      v.destroy()
      view.current = null
    }
  }, [text, language])
  useEffect(() => {
    view.current?.dispatch({ effects: beside.current.reconfigure(marksGutter(marks)) })
  }, [marks, text, language])
  useEffect(() => {
    view.current?.dispatch({ effects: changed.current.reconfigure(differing(differs)) })
  }, [differs, text, language])
  useEffect(() => {
    let late = false
    void coloursOf(language)?.().then((x) => {
      if (!late) view.current?.dispatch({ effects: coloured.current.reconfigure(x) })
    })
    return () => {
      late = true
    }
  }, [text, language])
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
