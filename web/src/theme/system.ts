import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react'
import { defaultThemeConfig } from '@chakra-ui/react/theme'

/** A colour that differs between the light and the dark sheet. */
const pair = (light: string, dark: string) => ({ value: { base: light, _dark: dark } })

/** Those of a theme's values that have one of the names. */
const only = <T>(of: Record<string, T> | undefined, ...names: string[]): Record<string, T> =>
  Object.fromEntries(Object.entries(of ?? {}).filter(([name]) => names.includes(name)))

/**
 * Of the library's theme only what our parts draw with. The whole of it, with
 * colours and recipes for sixty parts, holds the first look up by 150 ms.
 */
const { theme, ...rest } = defaultThemeConfig
const base = defineConfig({
  ...rest,
  theme: {
    ...theme,
    tokens: { ...theme?.tokens, colors: only(theme?.tokens?.colors, 'gray', 'black', 'white') },
    semanticTokens: {
      radii: theme?.semanticTokens?.radii ?? {},
      colors: only(theme?.semanticTokens?.colors, 'gray', 'bg', 'fg', 'border'),
    },
    recipes: only(theme?.recipes, 'button'),
    slotRecipes: {},
  },
})

const config = defineConfig({
  cssVarsPrefix: 'j',
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Source Sans 3 Variable', 'Segoe UI', sans-serif" },
        heading: { value: "'Newsreader Variable', Georgia, serif" },
        mono: { value: "'JetBrains Mono Variable', Consolas, monospace" },
      },
    },
    semanticTokens: {
      colors: {
        paper: pair('#F7F3EA', '#16191C'),
        sheet: pair('#FFFDF8', '#1D2226'),
        ink: pair('#1E2A32', '#E9E4D8'),
        rule: pair('#D8CFBD', '#343C42'),
        faint: pair('#5F6B70', '#9AA3A6'),
        verdigris: pair('#1F6F6B', '#63B5AC'),
        ochre: pair('#7D560D', '#D9A945'),
        plum: pair('#6B3F63', '#B98AB0'),
        vermilion: pair('#B23A24', '#F0795F'),
        moss: pair('#3F5A22', '#B4D48A'),
        wash: pair('#E9EFE9', '#24312F'),
        // The mineral colours of the role bars, apart from those of states.
        slate: pair('#3E556B', '#8FA9C2'),
        lagoon: pair('#4C8A8F', '#7FC3C7'),
        copper: pair('#A0673A', '#D59A6C'),
        straw: pair('#A8914A', '#D8C586'),
        rosewood: pair('#9A6F78', '#CFA3AB'),
        chalk: pair('#B4AB9B', '#6E7478'),
      },
    },
  },
  globalCss: {
    'html, body': { bg: 'paper', color: 'ink', fontFamily: 'body', fontSize: '15px', lineHeight: '1.45' },
  },
})

export const system = createSystem(defaultBaseConfig, base, config)
