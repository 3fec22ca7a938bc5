import { StreamLanguage } from '@codemirror/language'
import type { Extension } from '@codemirror/state'
import type { StreamParser } from '@codemirror/language'

type Load = () => Promise<Extension>

const javascript =
  (o: { typescript?: boolean; jsx?: boolean }): Load =>
  async () =>
    (await import('@codemirror/lang-javascript')).javascript(o)
const python: Load = async () => (await import('@codemirror/lang-python')).python()
const html: Load = async () => (await import('@codemirror/lang-html')).html()
const css: Load = async () => (await import('@codemirror/lang-css')).css()
const xml: Load = async () => (await import('@codemirror/lang-xml')).xml()
const yaml: Load = async () => (await import('@codemirror/lang-yaml')).yaml()
const cpp: Load = async () => (await import('@codemirror/lang-cpp')).cpp()
const stream = (load: () => Promise<StreamParser<unknown>>): Load => {
  return async () => StreamLanguage.define(await load())
}
const clike = (name: 'csharp' | 'kotlin' | 'java') =>
  stream(async () => (await import('@codemirror/legacy-modes/mode/clike'))[name] as StreamParser<unknown>)
const shell = stream(async () => (await import('@codemirror/legacy-modes/mode/shell')).shell as StreamParser<unknown>)
const properties = stream(
  async () => (await import('@codemirror/legacy-modes/mode/properties')).properties as StreamParser<unknown>,
)

/** How a text is coloured, by what Jantel calls its language. Each is fetched when a text of it is opened. */
const table: Record<string, Load> = {
  TypeScript: javascript({ typescript: true }),
  TSX: javascript({ typescript: true, jsx: true }),
  JavaScript: javascript({ jsx: true }),
  JSX: javascript({ jsx: true }),
  JSON: javascript({}),
  'JSON with Comments': javascript({}),
  'TypeScript configuration': javascript({}),
  'npm package': javascript({}),
  Python: python,
  GDScript: python,
  Go: async () => (await import('@codemirror/lang-go')).go(),
  'Go module': async () => (await import('@codemirror/lang-go')).go(),
  Java: async () => (await import('@codemirror/lang-java')).java(),
  Kotlin: clike('kotlin'),
  'C#': clike('csharp'),
  PHP: async () => (await import('@codemirror/lang-php')).php(),
  Ruby: stream(async () => (await import('@codemirror/legacy-modes/mode/ruby')).ruby as StreamParser<unknown>),
  Perl: stream(async () => (await import('@codemirror/legacy-modes/mode/perl')).perl as StreamParser<unknown>),
  Rust: async () => (await import('@codemirror/lang-rust')).rust(),
  C: cpp,
  'C++': cpp,
  Vue: async () => (await import('@codemirror/lang-vue')).vue(),
  Svelte: html,
  HTML: html,
  CSS: css,
  SCSS: css,
  Less: css,
  Sass: css,
  XML: xml,
  XAML: xml,
  SQL: async () => (await import('@codemirror/lang-sql')).sql(),
  YAML: yaml,
  Shell: shell,
  Makefile: shell,
  Dockerfile: stream(async () => (await import('@codemirror/legacy-modes/mode/dockerfile')).dockerFile as StreamParser<unknown>),
  TOML: stream(async () => (await import('@codemirror/legacy-modes/mode/toml')).toml as StreamParser<unknown>),
  INI: properties,
  'Java Properties': properties,
  Diff: stream(async () => (await import('@codemirror/legacy-modes/mode/diff')).diff as StreamParser<unknown>),
}

/** What stands in the name of a language that is not in the table, and how that is coloured. */
const families: [RegExp, Load][] = [
  [/HTML|Template|Blade|ERB|EJS|Handlebars|Jinja|Twig|Thymeleaf|Razor|Mojolicious/i, html],
  [/XML|SVG|project/i, xml],
  [/YAML|Compose|workflow/i, yaml],
]

/** How a text of a language is coloured; null where nobody knows. */
export function coloursOf(language: string): Load | null {
  return table[language] ?? families.find(([is]) => is.test(language))?.[1] ?? null
}
