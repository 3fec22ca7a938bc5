import { expect, it } from 'vitest'
import type { Finding } from '../api/types'
import { draftOf, patchOf, pickOf } from './draft'

const finding = { kind: 'fix', state: 'noted', title: 'a', text: '', assignee: '', labels: ['b', 'a'] } as unknown as Finding

it('only what was changed is sent, labels as a list', () => {
  const d = draftOf(finding)
  expect(patchOf(d, d)).toEqual({})
  expect(patchOf(d, { ...d, title: 'b', labels: ' x, ,y ' })).toEqual({ title: 'b', labels: ['x', 'y'] })
})

it('the fields one changed can be laid over what another made of the rest', () => {
  const mine = { ...draftOf(finding), title: 'mine', state: 'done' as const }
  expect(pickOf(mine, ['title'])).toEqual({ title: 'mine' })
})
