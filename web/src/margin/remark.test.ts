import { describe, expect, it } from 'vitest'
import { asking, readRemark } from './remark'

describe('a remark', () => {
  it.each([
    ['! split it', 'fix', 'split it'],
    ['? why twice', 'ask', 'why twice'],
    ['+ keep so', 'keep', 'keep so'],
    ['~ rather short', 'taste', 'rather short'],
    ['^ say more', 'improve', 'say more'],
    ['x start over', 'redo', 'start over'],
    ['Fix: the scale', 'fix', 'the scale'],
    ['ask: who weighs', 'ask', 'who weighs'],
    ['   plain   words  ', 'improve', 'plain words'],
  ])('%s is a %s', (line, kind, title) => {
    expect(readRemark(line)).toMatchObject({ kind, title })
  })
  it.each(['!important rules', 'x-ray of a seed', '+1 box', '~/shelf is read', 'fixed: no'])(
    'a sign without a space is part of the words: %s',
    (line) => {
      expect(readRemark(line)).toEqual({ kind: 'improve', title: line, named: false })
    },
  )
  it('is what the menu says when its words do not', () => {
    expect(readRemark('the lid', 'ask').kind).toBe('ask')
  })
})

describe('the completion', () => {
  it('asks for people and labels being typed', () => {
    expect(asking('for @Tom', 8)).toEqual({ sign: '@', word: 'Tom', start: 4 })
    expect(asking('#', 1)).toEqual({ sign: '#', word: '', start: 0 })
    expect(asking('for @Tomas Brack', 16)?.word).toBe('Tomas Brack')
  })
  it.each([
    ['inside backticks', 'use `@Tom'],
    ['inside a word', 'odd@hollin'],
    ['after words that were left as they are', '@Tom and then more'],
    ['without a sign', 'plain'],
  ])('is quiet %s', (_, text) => {
    expect(asking(text, text.length)).toBeNull()
  })
  it('looks at what stands before the cursor', () => {
    expect(asking('ask @To about it', 7)?.word).toBe('To')
  })
})
