import { expect, it } from 'vitest'
import { letInUrl, tokenIn } from './SignIn'

it('the token is found in the address, or alone', () => {
  const token = 'e595cbf702ef7f1a317383b28a9f2e77'
  expect(tokenIn(` http://127.0.0.1:7420/start?token=${token} `)).toBe(token)
  expect(tokenIn(token)).toBe(token)
  for (const bad of ['', 'hello', 'http://127.0.0.1:7420/', 'token=']) expect(tokenIn(bad)).toBe('')
})

it('the link somebody followed is kept through the sign-in', () => {
  const url = new URL(letInUrl('abc', '/c/3/code?at=desk/src&line=4'), 'http://jantel.example')
  expect(url.searchParams.get('to')).toBe('/c/3/code?at=desk/src&line=4')
})
