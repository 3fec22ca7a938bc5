import { expect, it } from 'vitest'
import { fit, pan, reveal, towards, towardsInColumns, zoom } from './frame'

const box = { w: 800, h: 400 }

it('what is smaller than its box is not blown up, and what is larger fits', () => {
  expect(fit({ w: 400, h: 200 }, box)).toEqual({ x: -200, y: -100, w: 800, h: 400 })
  const s = fit({ w: 1600, h: 300 }, box)
  expect([s.x, s.w, s.h]).toEqual([0, 1600, 800])
})

it('the point under the pointer stays under it', () => {
  const s = { x: 0, y: 0, w: 800, h: 400 }
  for (const at of [
    { x: 100, y: 50 },
    { x: 790, y: 390 },
  ]) {
    const z = zoom(s, box, 2, at)
    expect((at.x - z.x) / z.w).toBeCloseTo((at.x - s.x) / s.w)
    expect((at.y - z.y) / z.h).toBeCloseTo((at.y - s.y) / s.h)
    expect(z.w).toBe(400)
  }
})

it('one can look no closer and no farther than makes sense', () => {
  let s = { x: 0, y: 0, w: 800, h: 400 }
  for (let i = 0; i < 50; i++) s = zoom(s, box, 2, { x: 1, y: 1 })
  expect(s.w).toBe(200)
  for (let i = 0; i < 50; i++) s = zoom(s, box, 0.5, { x: 1, y: 1 })
  expect(s.w).toBe(4000)
})

it('a drawing can not be pushed out of sight', () => {
  let s = { x: 0, y: 0, w: 800, h: 400 }
  for (let i = 0; i < 50; i++) s = pan(s, box, { w: 800, h: 400 }, 300, -300)
  expect(s.x).toBe(-640)
  expect(s.y).toBe(320)
})

it('what is picked comes into sight, and what is in sight stays put', () => {
  const s = { x: 0, y: 0, w: 100, h: 100 }
  expect(reveal(s, { x: 40, y: 40, w: 10, h: 10 })).toEqual(s)
  expect(reveal(s, { x: 150, y: 40, w: 10, h: 10 })).toMatchObject({ x: 84, y: 0 })
  expect(reveal(s, { x: 0, y: -50, w: 10, h: 10 })).toMatchObject({ x: -24, y: -74 })
})

it('arrows go to the next box of the row, or to the nearest of the rows that way', () => {
  const r = (id: string, x: number, y: number) => ({ id, x, y, w: 10, h: 10 })
  const all = [r('a', 0, 0), r('b', 50, 0), r('c', 20, 50), r('d', 90, 100)]
  const go = (i: number, key: string) => towards(all, all[i] as (typeof all)[number], key)?.id
  expect(go(0, 'ArrowRight')).toBe('b')
  expect(go(0, 'ArrowLeft')).toBeUndefined()
  expect(go(1, 'ArrowDown')).toBe('c')
  expect(go(3, 'ArrowUp')).toBe('c')
  expect(go(3, 'x')).toBeUndefined()
})

it('in columns, right and left lead to the nearest of the next, up and down stay in one', () => {
  const r = (x: number, y: number, name: string) => ({ x, y, w: 100, h: 30, name })
  const all = [r(0, 90, 'here'), r(200, 0, 'top'), r(200, 80, 'middle'), r(200, 200, 'low'), r(400, 90, 'far')]
  const to = (from: string, key: string) => {
    const at = all.find((b) => b.name === from)
    return at && towardsInColumns(all, at, key)?.name
  }
  expect(to('here', 'ArrowRight')).toBe('middle')
  expect(to('middle', 'ArrowUp')).toBe('top')
  expect(to('middle', 'ArrowDown')).toBe('low')
  expect(to('low', 'ArrowRight')).toBe('far')
  expect(to('far', 'ArrowLeft')).toBe('middle')
  expect(to('here', 'ArrowLeft')).toBeUndefined()
  expect(to('here', 'a')).toBeUndefined()
})
