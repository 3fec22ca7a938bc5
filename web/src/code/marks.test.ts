import { EditorState } from '@codemirror/state'
import { describe, expect, it } from 'vitest'
import { picked, setLines } from './marks'

const text = ['one', 'two', 'three', 'four'].join('\n')

/** The lines that are picked after an effect. */
function pickedLines(from: number, to: number): number[] {
  const state = EditorState.create({ doc: text, extensions: [picked] }).update({ effects: setLines.of({ from, to }) }).state
  const lines: number[] = []
  state.field(picked).between(0, state.doc.length, (at) => {
    lines.push(state.doc.lineAt(at).number)
  })
  return lines
}

describe('lines that are picked', () => {
  it('are those from the first to the last', () => {
    expect(pickedLines(2, 3)).toEqual([2, 3])
    expect(pickedLines(4, 4)).toEqual([4])
  })

  it('end where the text ends, and are none where the text is shorter', () => {
    expect(pickedLines(3, 99)).toEqual([3, 4])
    expect(pickedLines(9, 12)).toEqual([])
    expect(pickedLines(0, 0)).toEqual([])
  })

  it('are kept until others are picked', () => {
    const state = EditorState.create({ doc: text, extensions: [picked] })
      .update({ effects: setLines.of({ from: 1, to: 1 }) })
      .state.update({ selection: { anchor: 5 } }).state
    expect(state.field(picked).size).toBe(1)
    expect(state.update({ effects: setLines.of({ from: 2, to: 4 }) }).state.field(picked).size).toBe(3)
  })
})
