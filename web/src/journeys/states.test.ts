import { describe, expect, it } from 'vitest'
import type { StateHolder } from '../api/types'
import { pictureOf, sayFaults, sayStates } from './states'

const move = (from: string, to: string) => ({ from, to, by: 'step', when: '', path: 'a.ts', line: 1 })
const holder = (h: Partial<StateHolder>): StateHolder => ({
  name: 'State',
  path: 'a.ts',
  line: 1,
  members: ['idle', 'busy', 'done'],
  moves: [],
  choices: [],
  never: [],
  stuck: [],
  ...h,
})

describe('states as a picture', () => {
  it('draws each step once with how often it was seen, and those from any state apart', () => {
    const p = pictureOf(holder({ moves: [move('idle', 'busy'), move('idle', 'busy'), move('busy', 'idle'), move('', 'done')] }))
    expect(p.arcs.map((a) => [a.from, a.to, a.count])).toEqual([
      [0, 1, 2],
      [1, 0, 1],
    ])
    expect(p.any).toEqual([2])
  })

  it('keeps all boxes apart and all arcs inside', () => {
    const members = Array.from({ length: 9 }, (_, i) => `state${i}`)
    const p = pictureOf(
      holder({ members, moves: [move('state0', 'state8'), move('state8', 'state0'), move('state3', 'state3')] }),
    )
    p.boxes.forEach((b, i) => {
      const next = p.boxes[i + 1]
      if (next) expect(next.x).toBeGreaterThan(b.x + b.width)
      expect(b.x + b.width).toBeLessThanOrEqual(p.width)
    })
    for (const a of p.arcs) {
      const [, start = 0, , lift = 0] = (/M([\d.]+) ([\d.]+) C[\d.]+ (-?[\d.]+)/.exec(a.path) ?? []).map(Number)
      expect(start).toBeGreaterThan(0)
      // A curve comes as high as three quarters of where its handles stand.
      const peak = p.top + (lift - p.top) * 0.75
      expect(peak).toBeGreaterThan(0)
      expect(peak).toBeLessThan(p.height)
    }
  })

  it('leaves out steps of states that it does not know', () => {
    expect(pictureOf(holder({ moves: [move('lost', 'busy'), move('idle', 'lost')] })).arcs).toEqual([])
  })

  it('says what nothing leads to or out of, and nothing where nothing is known', () => {
    expect(sayFaults(holder({ moves: [move('idle', 'busy')], never: ['done'], stuck: ['busy', 'done'] }))).toEqual([
      'Nothing was seen to lead to done.',
      'Nothing was seen to lead out of busy, done.',
    ])
    expect(sayFaults(holder({ never: ['idle'] }))).toEqual([])
    expect(sayStates(2, 1)).toBe('2 steps, 1 choice')
    expect(sayStates(0, 3)).toBe('3 choices')
  })
})
