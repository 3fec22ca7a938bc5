import { RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state'
import { Decoration, EditorView, gutter, GutterMarker, type DecorationSet } from '@codemirror/view'
import { inkStep } from '../theme/ink'

/** Something that stands beside a line. */
export interface Marked {
  line: number
  kind: 'smell' | 'finding'
  text: string
  strength: number
}

/** Picks lines. */
export const setLines = StateEffect.define<{ from: number; to: number }>()
const pickedLine = Decoration.line({ class: 'pickedline' })

/** The lines that are picked. */
export const picked = StateField.define<DecorationSet>({
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

/** What stands beside the lines: smells as ink, findings as a sign. */
export function marksGutter(marks: Marked[]): Extension {
  const byLine = new Map<number, Mark>()
  for (const m of marks) if (!byLine.has(m.line) || m.kind === 'finding') byLine.set(m.line, new Mark(m))
  return gutter({
    class: 'marksgutter',
    lineMarker: (view, block) => byLine.get(view.state.doc.lineAt(block.from).number) ?? null,
    initialSpacer: () => new Mark({ line: 0, kind: 'smell', text: '', strength: 0 }),
  })
}

const differentLine = Decoration.line({ class: 'differs' })

/** Marks lines that differ from the text beside. */
export function differing(lines: readonly number[]): Extension {
  const wanted = new Set(lines)
  return EditorView.decorations.compute(['doc'], (state) => {
    const b = new RangeSetBuilder<Decoration>()
    for (const n of [...wanted].sort((x, y) => x - y))
      if (n <= state.doc.lines) b.add(state.doc.line(n).from, state.doc.line(n).from, differentLine)
    return b.finish()
  })
}
