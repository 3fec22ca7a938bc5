import { expect, it } from 'vitest'
import { coloursOf } from './colours'

it.each([
  'TypeScript',
  'TSX',
  'JavaScript',
  'Python',
  'Go',
  'Java',
  'C#',
  'PHP',
  'Ruby',
  'Perl',
  'Rust',
  'Kotlin',
  'C',
  'C++',
  'GDScript',
  'Vue',
  'Svelte',
  'HTML',
  'Blade',
  'HTML+ERB',
  'EJS',
  'Handlebars',
  'Jinja',
  'Twig',
  'Thymeleaf',
  'HTML+Razor',
  'CSS',
  'SCSS',
  'Less',
  'XAML',
  'XML',
  'SQL',
  'Shell',
  'YAML',
  'JSON',
  'Dockerfile',
  'Makefile',
  'TOML',
])('%s is coloured', async (language) => {
  const load = coloursOf(language)
  expect(load).not.toBeNull()
  expect(await load?.()).toBeTruthy()
})

it('what nobody knows stays plain', () => {
  expect(coloursOf('Raw token data')).toBeNull()
})
