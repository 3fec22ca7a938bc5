// What the TypeScript compiler itself says of a tree: definitions from its
// parser, links from its module resolution. Prints one JSON object a file.
import { readdirSync, realpathSync, statSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import ts from 'typescript'

const root = realpathSync(process.argv[2])
const endings = /\.(ts|tsx|mts|cts|js|jsx|mjs|cjs)$/
const files = []
const walk = (d) => {
  for (const e of readdirSync(d, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const p = join(d, e.name)
    if (e.isDirectory()) {
      if (e.name !== 'node_modules' || d.includes('node_modules')) walk(p)
    } else if (e.isFile() && endings.test(e.name) && statSync(p).size < 1 << 20) files.push(p)
  }
}
walk(root)
const have = new Set(files)
const options = { allowJs: true, moduleResolution: ts.ModuleResolutionKind.Bundler, module: ts.ModuleKind.ESNext, resolveJsonModule: true, allowImportingTsExtensions: true, noEmit: true }
const configs = new Map()
const optionsFor = (dir) => {
  if (configs.has(dir)) return configs.get(dir)
  const p = join(dir, 'tsconfig.json')
  let o
  if (ts.sys.fileExists(p)) o = { ...options, ...ts.parseJsonConfigFileContent(ts.readConfigFile(p, ts.sys.readFile).config, ts.sys, dir).options }
  else o = dir === root || dirname(dir) === dir ? options : optionsFor(dirname(dir))
  configs.set(dir, o)
  return o
}
const isFunction = (n) => n && (ts.isArrowFunction(n) || ts.isFunctionExpression(n))

for (const path of files) {
  const text = ts.sys.readFile(path)
  const sf = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true)
  if (sf.parseDiagnostics.length) continue // what the compiler refuses is no truth
  const line = (pos) => sf.getLineAndCharacterOfPosition(pos).line + 1
  const defs = []
  const add = (node, kind, name, owner = '') => defs.push({ kind, name, owner, line: line(node.getStart(sf)), end: line(node.getEnd()) })
  const wanted = new Set()
  // Scripts without modules: a function that is called at once or handed to what loads the file is its top, and what
  // is put on a name or a prototype is defined by that.
  const script = /\.[cm]?jsx?$/.test(path)
  const bare = (n) => (ts.isParenthesizedExpression(n) ? bare(n.expression) : n)
  const inner = (n) => {
    n = bare(n)
    if (ts.isPrefixUnaryExpression(n)) return inner(n.operand)
    return ts.isVoidExpression(n) ? inner(n.expression) : n
  }
  const loaders = new Set(['define', 'require', 'requirejs', '$', 'jQuery', 'ready'])
  const chain = (n) => (ts.isIdentifier(n) ? [n.text] : n.kind === ts.SyntaxKind.ThisKeyword ? ['this'] : ts.isPropertyAccessExpression(n) && ts.isIdentifier(n.name) && chain(n.expression) ? [...chain(n.expression), n.name.text] : undefined)
  const bodies = (n) => {
    const call = inner(n.expression)
    if (!ts.isCallExpression(call)) return []
    const own = bare(call.expression)
    const called = ts.isFunctionExpression(own) ? own : ts.isPropertyAccessExpression(own) && ts.isFunctionExpression(bare(own.expression)) ? bare(own.expression) : undefined
    const handed = call.arguments.filter((a) => ts.isFunctionExpression(a))
    if (called) return call === n.expression && called === call.expression ? [] : [called, ...handed]
    const last = ts.isIdentifier(own) ? own.text : ts.isPropertyAccessExpression(own) && ts.isIdentifier(own.name) ? own.name.text : ''
    const from = ts.isPropertyAccessExpression(own) ? own.expression : undefined
    const known = !from || chain(from) || (ts.isCallExpression(from) && chain(from.expression) && loaders.has(chain(from.expression).at(-1)))
    return call === n.expression && loaders.has(last) && known ? handed : []
  }
  const types = new Set()
  const placed = (n, space) => {
    const e = n.expression
    const names = (ts.isPropertyAccessExpression(e.left) && chain(e.left)) || []
    if (names.length < 2 || names[0] === 'this' || names[0] === 'exports' || (names[0] === 'module' && names[1] === 'exports')) return
    if (['window', 'self', 'global', 'globalThis'].includes(names[0])) names.shift()
    const owner = (l) => [...(space ? [space] : []), ...l].join('.')
    const right = e.right
    if (names.at(-1) === 'prototype' && names.length > 1 && ts.isObjectLiteralExpression(right)) {
      const of = owner(names.slice(0, -1))
      types.add(of)
      for (const m of right.properties) {
        const called = m.name && ts.isIdentifier(m.name) ? m.name.text : undefined
        if (called && (ts.isMethodDeclaration(m) || ts.isAccessor(m) || (ts.isPropertyAssignment(m) && isFunction(m.initializer)))) add(m, 'method', called, of)
      }
    } else if (names.at(-2) === 'prototype' && names.length > 2 && isFunction(right)) {
      types.add(owner(names.slice(0, -2)))
      add(n, 'method', names.at(-1), owner(names.slice(0, -2)))
    } else if (names.at(-1) !== 'prototype' && names.at(-2) !== 'prototype' && isFunction(right)) add(n, 'function', names.at(-1), owner(names.slice(0, -1)))
  }
  // Definitions at the top, in namespaces and in classes; what lies inside functions is nobody's business but theirs.
  const visit = (n, ambient) => {
    ambient ||= sf.isDeclarationFile || (ts.canHaveModifiers(n) && (ts.getModifiers(n) ?? []).some((m) => m.kind === ts.SyntaxKind.DeclareKeyword))
    const fallback = ts.canHaveModifiers(n) && (ts.getModifiers(n) ?? []).some((m) => m.kind === ts.SyntaxKind.DefaultKeyword) ? 'default' : undefined
    const called = n.name?.text ?? fallback
    if (ts.isFunctionDeclaration(n) && called && (n.body || ambient)) add(n, 'function', called)
    else if (ts.isInterfaceDeclaration(n)) add(n, 'interface', n.name.text)
    else if (ts.isTypeAliasDeclaration(n)) add(n, 'type', n.name.text)
    else if (ts.isEnumDeclaration(n)) add(n, 'enum', n.name.text)
    else if (ts.isVariableStatement(n)) {
      const l = n.declarationList.declarations
      for (const d of l) {
        if (ts.isIdentifier(d.name) && isFunction(d.initializer)) add(l.length === 1 ? n : d, 'function', d.name.text)
        if (ts.isIdentifier(d.name) && d.initializer && ts.isClassExpression(d.initializer)) classLike(d.initializer, l.length === 1 ? n : d, d.name.text, false)
      }
    } else if (ts.isExpressionStatement(n) && ts.isBinaryExpression(n.expression) && n.expression.operatorToken.kind === ts.SyntaxKind.EqualsToken && isFunction(n.expression.right) && /^(module\.)?exports\.\w+$/.test(n.expression.left.getText(sf))) add(n, 'function', n.expression.left.name.text)
    else if (script && ts.isExpressionStatement(n) && bodies(n).length > 0) for (const f of bodies(n)) f.body.statements.forEach((s) => visit(s, ambient))
    else if (script && ts.isExpressionStatement(n) && ts.isBinaryExpression(n.expression) && n.expression.operatorToken.kind === ts.SyntaxKind.EqualsToken) placed(n, '')
    else if (ts.isClassDeclaration(n) && called) classLike(n, n, called, ambient)
    else if (ts.isModuleDeclaration(n) && n.body && ts.isModuleBlock(n.body)) n.body.statements.forEach((s) => visit(s, ambient))
  }
  const classLike = (n, whole, called, ambient) => {
      add(whole, 'class', called)
      for (const m of n.members) {
        const name = m.name && (ts.isIdentifier(m.name) || ts.isPrivateIdentifier(m.name)) ? m.name.text : undefined
        if (ts.isConstructorDeclaration(m) && (m.body || ambient)) add(m, 'method', 'constructor')
        else if (name && (ts.isMethodDeclaration(m) ? m.body || ambient || (ts.getModifiers(m) ?? []).some((x) => x.kind === ts.SyntaxKind.AbstractKeyword) : ts.isAccessor(m))) add(m, 'method', name)
        else if (name && ts.isPropertyDeclaration(m)) add(m, isFunction(m.initializer) ? 'method' : 'property', name)
      }
  }
  sf.statements.forEach((s) => visit(s))
  // What has something on its prototype is a type, down to the last of its members that follow it at once.
  for (let i = 0, n = defs.length; i < n; i++) {
    const d = defs[i]
    const full = d.owner ? d.owner + '.' + d.name : d.name
    if (d.kind !== 'function' || !types.has(full)) continue
    types.delete(full)
    defs.push({ ...d, kind: 'method', name: 'constructor', owner: full })
    d.kind = 'class'
    for (let j = i + 1; j < n && defs[j].owner === full; j++) d.end = Math.max(d.end, defs[j].end)
  }
  const imports = (n) => {
    const spec =
      (ts.isImportDeclaration(n) || ts.isExportDeclaration(n)) && n.moduleSpecifier && ts.isStringLiteral(n.moduleSpecifier)
        ? n.moduleSpecifier.text
        : ts.isImportEqualsDeclaration(n) && ts.isExternalModuleReference(n.moduleReference) && ts.isStringLiteral(n.moduleReference.expression)
          ? n.moduleReference.expression.text
          : ts.isCallExpression(n) && (n.expression.kind === ts.SyntaxKind.ImportKeyword || (ts.isIdentifier(n.expression) && n.expression.text === 'require')) && n.arguments.length > 0 && ts.isStringLiteralLike(n.arguments[0])
            ? n.arguments[0].text
            : ts.isImportTypeNode(n) && ts.isLiteralTypeNode(n.argument) && ts.isStringLiteral(n.argument.literal)
              ? n.argument.literal.text
              : undefined
    if (spec !== undefined) wanted.add(spec)
    ts.forEachChild(n, imports)
  }
  imports(sf)
  const links = new Set()
  for (const spec of wanted) {
    const r = ts.resolveModuleName(spec, path, optionsFor(dirname(path)), ts.sys).resolvedModule
    if (!r) continue
    const to = realpathSync(r.resolvedFileName)
    if (have.has(to) && to !== path) links.add(relative(root, to))
  }
  console.log(JSON.stringify({ path: relative(root, path), defs, links: [...links] }))
}
