// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { beginOpening, enterView, keep, mayAct, takeTyped, tookFocus } from './gate'

const key = (k: string, more = {}) => ({ key: k, ctrlKey: false, metaKey: false, altKey: false, isComposing: false, ...more })

beforeEach(() => {
  document.body.innerHTML = `<div class="frame"><header><button id="b">x</button></header>
    <main id="view" tabindex="-1"><p id="p">x</p><input id="i"><div class="editor" tabindex="-1" id="e"></div></main></div><p id="outside">x</p>`
})
afterEach(() => {
  takeTyped('search')
  vi.useRealTimers()
})

const el = (id: string) => document.getElementById(id)

test('single keys act in a view and its frame, not in a field or when the focus is lost', () => {
  expect(mayAct(el('p'))).toBe(true)
  expect(mayAct(el('b'))).toBe(true)
  expect(mayAct(el('i'))).toBe(false)
  expect(mayAct(el('e'))).toBe(false)
  expect(mayAct(document.body)).toBe(false)
  expect(mayAct(el('outside'))).toBe(false)
})

test('keys act on when what had the focus in a view was drawn anew, and only then', () => {
  const had = (id: string) => {
    const e = el(id)
    if (!e) throw new Error(id)
    tookFocus(e)
    return e
  }
  const shown = had('p')
  expect(mayAct(document.body)).toBe(false) // it is still there: the reader left it
  shown.remove()
  expect(mayAct(document.body)).toBe(true)
  expect(mayAct(el('outside'))).toBe(false)
  document.body.insertAdjacentHTML('beforeend', '<dialog open></dialog>')
  expect(mayAct(document.body)).toBe(false)
  document.querySelector('dialog')?.remove()
  // What was being written goes on being written, whatever became of its field.
  for (const id of ['i', 'e', 'outside']) {
    had(id).remove()
    expect(mayAct(document.body)).toBe(false)
  }
})

test.each([
  '<dialog open></dialog>',
  '<div role="menu"></div>',
  '<div role="dialog"></div>',
  '<ul role="listbox" class="offers"></ul>',
])('nothing acts behind %s', (html) => {
  document.body.insertAdjacentHTML('beforeend', html)
  expect(mayAct(el('p'))).toBe(false)
})

test('what is typed while something opens is kept for it', () => {
  expect(keep(key('r'))).toBe(false)
  beginOpening('search')
  expect(mayAct(el('p'))).toBe(false)
  for (const k of ['s', 'x', 'Backspace', 'h', 'Shift', 'e', 'Enter']) expect(keep(key(k))).toBe(true)
  expect(keep(key('k', { ctrlKey: true }))).toBe(false)
  expect(takeTyped('note')).toBeNull()
  expect(takeTyped('search')).toEqual({ typed: 'she', entered: true })
  expect(takeTyped('search')).toBeNull()
  expect(keep(key('r'))).toBe(false)
  expect(mayAct(el('p'))).toBe(true)
})

test('Escape gives up what is opening, and so does time', () => {
  vi.useFakeTimers()
  beginOpening('search')
  expect(keep(key('Escape'))).toBe(false)
  expect(takeTyped('search')).toBeNull()
  beginOpening('search')
  vi.advanceTimersByTime(10_001)
  expect(takeTyped('search')).toBeNull()
})

test('the view takes a lost focus and no other', () => {
  enterView()
  expect(document.activeElement?.id).toBe('view')
  el('i')?.focus()
  enterView()
  expect(document.activeElement?.id).toBe('i')
})
