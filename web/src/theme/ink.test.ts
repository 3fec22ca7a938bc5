import { describe, expect, it } from 'vitest'
import { counted, figure, inkStep, points, shortPath, spokenDay } from './ink'
import { lookOf, roleLook, roleName, roleOrder, rolePatterns } from './roles'

describe('figures as they are read', () => {
  it('parts the thousands and keeps the words in number', () => {
    expect(figure(1234567)).toBe('1,234,567')
    expect(counted(1, 'file')).toBe('1 file')
    expect(counted(0, 'file')).toBe('0 files')
    expect(counted(1200, 'dependency', 'dependencies')).toBe('1,200 dependencies')
  })

  it('rounds a score to whole points, and shows that it is not known', () => {
    expect(points(92.6)).toBe('93')
    expect(points(0)).toBe('0')
    expect(points(null)).toBe('–')
    expect(points(undefined)).toBe('–')
  })

  it('gives each strength one of five steps, the least of them to nothing', () => {
    expect([0, 0.01, 0.2, 0.21, 0.99, 1, 7].map(inkStep)).toEqual([1, 1, 1, 2, 5, 5, 5])
  })

  it('says a day as month and year', () => {
    expect(spokenDay('2026-06-11')).toBe('Jun 2026')
    expect(spokenDay('2026-13-11')).toBe(' 2026')
  })
})

describe('paths shortened in the middle', () => {
  it('keeps what fits, and the first and last names of what does not', () => {
    expect(shortPath('desk/src/weigh.ts', 30)).toBe('desk/src/weigh.ts')
    expect(shortPath('desk/src/components/shelf/ShelfPicker.tsx', 30)).toBe('desk/src/…/ShelfPicker.tsx')
  })

  it('cuts a name that alone is too long, from both ends', () => {
    const short = shortPath('a/VeryLongNameOfAFileThatNobodyWillEverRead.component.tsx', 20)
    expect(short.length).toBeLessThanOrEqual(20)
    expect(short).toContain('…')
    expect(short.endsWith('.tsx')).toBe(true)
  })

  it('never comes out longer than the path, nor much longer than it may', () => {
    const parts = ['counter', 'src', 'logic', 'accessions', 'x', 'a.ts', 'growers', 'index.ts']
    for (let n = 1; n <= parts.length; n++)
      for (let max = 8; max < 50; max++) {
        const path = parts.slice(0, n).join('/')
        const short = shortPath(path, max)
        expect(short.length).toBeLessThanOrEqual(path.length)
        expect(short.length).toBeLessThanOrEqual(Math.max(max, 12))
      }
  })
})

describe('how roles are drawn', () => {
  it('gives every role a look of its own, and says what is not known', () => {
    expect(new Set(roleOrder.map((_, i) => roleLook(i))).size).toBe(roleOrder.length)
    expect(roleLook(-1)).toBe('role none')
    expect(roleName(roleOrder, -1)).toBe('role unknown')
    expect(roleName(roleOrder, 99)).toBe('role unknown')
    expect(roleName(roleOrder, 0)).toBe('entry')
  })

  it('draws a pattern that is there wherever a look is not solid', () => {
    const ids = new Set(rolePatterns.map((p) => `url(#${p.id})`))
    roleOrder.forEach((_, i) => {
      const look = lookOf(i)
      expect(look.startsWith('var(') || ids.has(look)).toBe(true)
    })
    expect(lookOf(-1)).toBe('none')
  })
})
