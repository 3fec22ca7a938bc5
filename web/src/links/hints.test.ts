import { expect, test } from 'vitest'
import { readFileSync } from 'node:fs'
import { hintsAt, layersIn, spotAt, thresholdsOf, type Known, type Schema } from './hints'

const schema = JSON.parse(readFileSync('../core/charter/schema.json', 'utf8')) as Schema
const known: Known = {
  layers: ['handlers', 'logic'],
  thresholds: [
    { key: 'long-file', meaning: 'lines of a file' },
    { key: 'hub.users', meaning: 'files' },
  ],
  places: (typed) => Promise.resolve(['counter/src', 'bench'].filter((p) => p.startsWith(typed))),
}

/** What is hinted at where the bar stands. */
async function at(text: string) {
  const pos = text.indexOf('|')
  const spot = spotAt(text.replace('|', ''), pos)
  return spot && (await hintsAt(spot, schema, known)).map((h) => h.label)
}

test.each<[string, string, string[]]>([
  ['an empty text', '|', ['rings', 'layers', 'apart', 'exceptions', 'thresholds', 'names', 'glossary']],
  [
    'what stands there already is left out',
    'rings: true\nlayers:\n  - name: a\n|',
    ['apart', 'exceptions', 'thresholds', 'names', 'glossary'],
  ],
  ['the first item', 'layers:\n  |', ['- name']],
  ['an item after others', 'layers:\n  - name: a\n    holds: [a]\n  |', ['- name']],
  ['keys of an item', 'layers:\n  - name: a\n    |', ['holds', 'may', 'wiring']],
  ['behind a dash', 'layers:\n  - |', ['name', 'holds', 'may', 'wiring']],
  ['keys of an exception', 'exceptions:\n  - from: a\n    to: b\n    |', ['reason', 'until']],
  ['layers it may need', 'layers:\n  - name: a\n    may: [|', ['handlers', 'logic']],
  ['more of them', 'layers:\n  - name: a\n    may: [handlers, lo|', ['handlers', 'logic']],
  ['a list over lines', 'layers:\n  - name: a\n    may:\n      - |', ['handlers', 'logic']],
  ['a list in one line over lines', 'layers:\n  - name: a\n    holds: [bench,\n      cou|', ['counter/src']],
  ['a place in quotes', 'apart:\n  - name: a\n    places: ["ben|', ['bench']],
  ['a place of an exception', 'exceptions:\n  - from: |', ['counter/src', 'bench']],
  ['yes or no', 'layers:\n  - name: a\n    wiring: |', ['true', 'false']],
  ['yes or no at the top', 'rings: |', ['true', 'false']],
  ['thresholds', 'thresholds:\n  |', ['long-file', 'hub.users']],
  ['thresholds besides', 'thresholds:\n  long-file: 300\n  |', ['hub.users']],
])('hints: %s', async (_, text, want) => {
  expect(await at(text)).toEqual(want)
})

test('nothing is hinted at in a comment or a reason', async () => {
  expect(await at('layers: # the |')).toBeNull()
  expect(await at('exceptions:\n  - from: a\n    reason: it is |')).toEqual([])
})

test('what is put in goes on where one would', async () => {
  const put = async (text: string) => {
    const spot = spotAt(text, text.length)
    return spot && (await hintsAt(spot, schema, known)).map((h) => h.apply)
  }
  expect(await put('lay')).toContain('layers:\n  ')
  expect(await put('layers:\n  ')).toEqual(['- name: '])
  expect(await put('exceptions:\n  - from: a\n    ')).toEqual(['to: ', 'reason: ', 'until: '])
  expect(await put('layers:\n  - name: a\n    ')).toEqual(['holds: [', 'may: [', 'wiring: '])
})

test('layers are told by their names', () => {
  expect(layersIn('layers:\n  - name: a # x\n  - holds: [x]\n    name: "b c"\napart:\n  - name: d\n')).toEqual(['a', 'b c'])
})

test('a threshold is called by its rule, and by its parameter where there are several', () => {
  const one = { slug: 'long-file', parameters: [{ name: 'lines', meaning: 'lines of a file' }] }
  const two = {
    slug: 'mixed-duties',
    parameters: [
      { name: 'duties', meaning: 'how many' },
      { name: 'lines', meaning: 'from which' },
    ],
  }
  expect(thresholdsOf([one, two, { slug: 'hub', parameters: [] }]).map((t) => t.key)).toEqual([
    'long-file',
    'mixed-duties.duties',
    'mixed-duties.lines',
  ])
})
