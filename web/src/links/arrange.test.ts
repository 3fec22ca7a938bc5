import { expect, test } from 'vitest'
import type { Drawing } from '../api/types'
import { keeping, movedBy, stepped } from './arrange'

const box = (path: string, x: number, y: number): Drawing['boxes'][number] => ({
  path,
  x,
  y,
  w: 100,
  h: 30,
  name: path,
  within: '',
  file: false,
  opens: true,
  files: 1,
  lines: 10,
  level: y,
  ring: 0,
  circle: 0,
  rim: false,
})

const boxes = [box('desk', 0, 0), box('counter', 120, 0), box('bench', 240, 0), box('shared', 60, 90)]

test('a box that is moved stands where it was put, in its row', () => {
  expect(movedBy(boxes, 'desk', 130)).toEqual(['counter', 'desk', 'bench', 'shared'])
  expect(movedBy(boxes, 'desk', 900)).toEqual(['counter', 'bench', 'desk', 'shared'])
  expect(movedBy(boxes, 'bench', -900)).toEqual(['bench', 'desk', 'counter', 'shared'])
  expect(movedBy(boxes, 'desk', 20)).toBeNull()
  expect(movedBy(boxes, 'shared', 500)).toBeNull()
  expect(movedBy(boxes, 'nowhere', 500)).toBeNull()
})

test('a step changes places with the neighbour and ends at the edge', () => {
  expect(stepped(boxes, 'counter', 1)).toEqual(['desk', 'bench', 'counter', 'shared'])
  expect(stepped(boxes, 'counter', -1)).toEqual(['counter', 'desk', 'bench', 'shared'])
  expect(stepped(boxes, 'desk', -1)).toBeNull()
  expect(stepped(boxes, 'bench', 1)).toBeNull()
})

test('what is not drawn now keeps its place', () => {
  expect(keeping(['b', 'a'], ['a', 'x', 'b', 'y'])).toEqual(['b', 'a', 'x', 'y'])
})
