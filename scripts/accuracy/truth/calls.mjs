// Says what the TypeScript compiler says of the calls in a tree: for each
// function, method and value at the top which functions and members of the tree
// it calls. Prints one JSON object a file.
import ts from 'typescript'
import { readdirSync, realpathSync } from 'node:fs'
import { join, relative } from 'node:path'

const root = realpathSync(process.argv[2])
const files = []
const walk = (dir) => {
  for (const e of readdirSync(dir, { withFileTypes: true })) {
    const p = join(dir, e.name)
    if (e.isDirectory() && e.name !== 'node_modules') walk(p)
    else if (e.isFile() && /\.([cm]?[jt]s|[jt]sx)$/.test(e.name) && !/\.min\.js$/.test(e.name)) files.push(p)
  }
}
walk(root)
const program = ts.createProgram(files, {
  allowJs: true,
  checkJs: false,
  noEmit: true,
  jsx: ts.JsxEmit.Preserve,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  target: ts.ScriptTarget.ESNext,
  skipLibCheck: true,
  experimentalDecorators: true,
  types: [],
})
const checker = program.getTypeChecker()
const here = (f) => {
  const rel = relative(root, f.fileName)
  return rel.startsWith('..') || rel.startsWith('node_modules') || rel.includes('/node_modules/') ? '' : rel
}

/** Whether a node stands at the top of a file or of a namespace, as a statement of its own. */
const atTop = (n) => {
  for (let p = n.parent; p; p = p.parent) {
    if (ts.isSourceFile(p) || ts.isModuleBlock(p)) return true
    if (!ts.isVariableStatement(p) && !ts.isVariableDeclarationList(p) && !ts.isExportAssignment(p)) return false
  }
  return false
}
const within = (n) => {
  const names = []
  for (let p = n.parent; p; p = p.parent) if (ts.isModuleDeclaration(p) && !ts.isGlobalScopeAugmentation(p)) names.unshift(p.name.text)
  return names.length ? names.join('.') + '.' : ''
}
const text = (name) => (name && (ts.isIdentifier(name) || ts.isStringLiteral(name) || ts.isPrivateIdentifier(name)) ? name.text : '')

const isFunction = (e) => ts.isFunctionExpression(e) || ts.isArrowFunction(e)

/** What is put on "exports", "module.exports" or a prototype, by its name; an empty text for the whole of a module. */
function exported(e) {
  const whole = (x) => (ts.isIdentifier(x) && x.text === 'exports') || (ts.isPropertyAccessExpression(x) && x.getText() === 'module.exports')
  if (whole(e)) return ''
  if (ts.isPropertyAccessExpression(e) && whole(e.expression)) return e.name.text
  const of = ts.isPropertyAccessExpression(e) && e.expression
  if (of && ts.isPropertyAccessExpression(of) && of.name.text === 'prototype') return `${of.expression.getText()}.${e.name.text}`
}

/** The name by which a module of the older sort hands something out, or nothing. */
function handedOut(d) {
  if (ts.isPropertyAccessExpression(d)) d = d.parent
  if (ts.isBinaryExpression(d) && d.operatorToken.kind === ts.SyntaxKind.EqualsToken) {
    const name = exported(d.left)
    if (name === undefined) return
    let value = d.right
    while (ts.isBinaryExpression(value)) value = value.right
    if (!isFunction(value) && !ts.isClassExpression(value)) return
    return name || value.name?.text || 'default'
  }
  if ((isFunction(d) || ts.isClassExpression(d)) && ts.isBinaryExpression(d.parent)) return handedOut(d.parent)
  const whole = d.parent?.parent
  if (d.parent && ts.isObjectLiteralExpression(d.parent) && ts.isBinaryExpression(whole) && exported(whole.left) === '' && isRun(d)) return text(d.name)
  if (ts.isClassElement(d) && ts.isClassExpression(d.parent)) {
    const o = handedOut(d.parent)
    return o && o + '.' + (ts.isConstructorDeclaration(d) ? 'constructor' : text(d.name))
  }
}

/** Whether a member of an object is a function. */
const isRun = (d) => ts.isMethodDeclaration(d) || ts.isAccessor(d) || (ts.isPropertyAssignment(d) && isFunction(d.initializer))

/** The name of a definition, or nothing where it is none that has a name of its own. */
function nameOf(d) {
  if (ts.isFunctionDeclaration(d) || ts.isClassDeclaration(d) || ts.isInterfaceDeclaration(d)) return atTop(d) ? within(d) + (d.name?.text ?? 'default') : ''
  if (ts.isVariableDeclaration(d)) return atTop(d) && ts.isIdentifier(d.name) ? within(d) + d.name.text : ''
  const out = handedOut(d)
  if (out) return out
  const owner = d.parent
  if (ts.isConstructorDeclaration(d)) return owner.name && atTop(owner) ? within(owner) + owner.name.text + '.constructor' : ''
  const key = text(d.name)
  if (!key) return ''
  if (ts.isParameterPropertyDeclaration(d, owner)) return owner.parent.name && atTop(owner.parent) ? within(owner.parent) + owner.parent.name.text + '.' + key : ''
  if (ts.isClassDeclaration(owner) || ts.isInterfaceDeclaration(owner)) {
    const o = nameOf(owner)
    return o && o + '.' + key
  }
  if (ts.isTypeLiteralNode(owner)) {
    let alias = owner.parent // a type may be one of several that are taken together
    while (ts.isIntersectionTypeNode(alias) || ts.isUnionTypeNode(alias) || ts.isParenthesizedTypeNode(alias)) alias = alias.parent
    if (ts.isTypeAliasDeclaration(alias)) return within(owner) + alias.name.text + '.' + key
  }
  if (ts.isObjectLiteralExpression(owner) && ts.isVariableDeclaration(owner.parent)) {
    const o = nameOf(owner.parent)
    return o && o + '.' + key
  }
  return ''
}

/** Where a call stands: the innermost definition around it. */
function around(n) {
  for (let p = n.parent; p; p = p.parent) {
    if (p.parent && ts.isObjectLiteralExpression(p.parent) && !isRun(p)) continue
    if (
      ts.isObjectLiteralElement(p) || isFunction(p) || ts.isFunctionDeclaration(p) || ts.isVariableDeclaration(p) || ts.isClassElement(p) || ts.isClassDeclaration(p)
    ) {
      const name = nameOf(p)
      if (name) return name
    }
  }
  return ''
}

/** What a name taken out of an object by its pattern is there. */
function unpacked(s) {
  const d = s?.declarations?.[0]
  if (!d || !ts.isBindingElement(d) || !ts.isObjectBindingPattern(d.parent)) return s
  return checker.getTypeAtLocation(d.parent).getProperty((d.propertyName ?? d.name).text) ?? s
}

function callee(e) {
  while (ts.isParenthesizedExpression(e) || ts.isNonNullExpression(e)) e = e.expression
  const at = ts.isPropertyAccessExpression(e) ? e.name : ts.isIdentifier(e) ? e : null
  if (!at) return
  let s = checker.getSymbolAtLocation(at)
  if (s && s.flags & ts.SymbolFlags.Alias) s = checker.getAliasedSymbol(s)
  s = unpacked(s)
  for (const d of s?.declarations ?? []) {
    const path = here(d.getSourceFile())
    const name = path && nameOf(d)
    if (name) return [path, name]
  }
}

for (const f of program.getSourceFiles()) {
  const path = here(f)
  if (!path) continue
  const calls = new Set()
  const visit = (n) => {
    if (ts.isCallExpression(n) && n.expression.kind !== ts.SyntaxKind.SuperKeyword) {
      const to = callee(n.expression)
      if (to) calls.add(`${around(n)} -> ${to[0]} ${to[1]}`)
    }
    ts.forEachChild(n, visit)
  }
  visit(f)
  console.log(JSON.stringify({ path, calls: [...calls].sort() }))
}
