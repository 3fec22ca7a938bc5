import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['**/dist', '**/node_modules', 'server', 'bin', 'e2e/results', 'web/src/api/schema.d.ts'] },
  ...ts.configs.recommended,
  { ...hooks.configs.flat['recommended-latest'], files: ['web/**'] },
  { files: ['web/src/**/*.tsx'], rules: { 'max-lines': ['error', { max: 200 }] } },
  { rules: { '@typescript-eslint/no-non-null-assertion': 'error', 'react-hooks/incompatible-library': 'off' } },
)
