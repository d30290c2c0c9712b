// Writes what the typescript package says of TypeScript and JavaScript files, as DumpedTruth reads it:
//   node typescript.mjs FOLDER .ts|.js >DUMP      (typescript is looked for in console/node_modules)
import { readFileSync, readdirSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'

const ts = createRequire(new URL('../../console/', import.meta.url))('typescript')
const [folder, ending] = process.argv.slice(2)

function* files(at) {
  for (const entry of readdirSync(at, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(at, entry.name)
    if (entry.isDirectory()) yield* files(path)
    else if (entry.name.endsWith(ending) && !entry.name.endsWith('.min.js')) yield path
  }
}

/** Types, functions, members of types, and variables of files and namespaces. */
function declared(source) {
  const found = []
  const add = name => {
    if (!name) return
    const quoted = ts.isStringLiteral(name)
    if (!quoted && !ts.isIdentifier(name) && !ts.isPrivateIdentifier(name) || quoted && !name.text) return
    found.push([quoted ? name.getText(source).slice(1, -1) : name.getText(source), name.getStart(source)])
  }
  const bound = name => {
    if (ts.isIdentifier(name)) add(name)
    else name.elements.forEach(element => { if (!ts.isOmittedExpression(element)) bound(element.name) })
  }
  const visit = node => {
    if (ts.isClassDeclaration(node) || ts.isInterfaceDeclaration(node) || ts.isEnumDeclaration(node) || ts.isTypeAliasDeclaration(node) || ts.isFunctionDeclaration(node)) add(node.name)
    else if (ts.isModuleDeclaration(node) && (!ts.isModuleDeclaration(node.parent))) {
      if (ts.isStringLiteral(node.name)) add(node.name)
      else if (!(node.flags & ts.NodeFlags.GlobalAugmentation)) {
        let last = node
        while (last.body && ts.isModuleDeclaration(last.body)) last = last.body
        const from = node.name.getStart(source)
        found.push([source.text.slice(from, last.name.getEnd()), from])
      }
    } else if (ts.isEnumMember(node)) add(node.name)
    else if ((ts.isClassLike(node.parent ?? node) || ts.isInterfaceDeclaration(node.parent ?? node)) && node.name && (ts.isMethodDeclaration(node) || ts.isMethodSignature(node) || ts.isPropertyDeclaration(node)
      || ts.isPropertySignature(node) || ts.isAccessor(node))) add(node.name)
    else if (ts.isConstructorDeclaration(node)) {
      const keyword = node.getChildren(source).find(child => child.kind === ts.SyntaxKind.ConstructorKeyword)
      if (keyword) found.push(['constructor', keyword.getStart(source)])
      node.parameters.filter(parameter => ts.isParameterPropertyDeclaration(parameter, node)).forEach(parameter => add(parameter.name))
    } else if (ts.isVariableStatement(node) && (ts.isSourceFile(node.parent) || ts.isModuleBlock(node.parent))) {
      node.declarationList.declarations.forEach(declaration => bound(declaration.name))
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found
}

/** Between two tokens stand only blanks and comments. */
function regions(source) {
  const found = []
  const { text } = source
  let before = 0
  const gap = to => {
    for (let at = before; at < to;) {
      if (text.startsWith('//', at) || at === 0 && text.startsWith('#!')) {
        let end = text.indexOf('\n', at)
        if (end < 0 || end > to) end = to
        found.push(['comment', at, end])
        at = end
      } else if (text.startsWith('/*', at)) {
        const end = text.indexOf('*/', at + 2) + 2
        found.push(['comment', at, end])
        at = end
      } else at++
    }
  }
  const strings = new Set([ts.SyntaxKind.StringLiteral, ts.SyntaxKind.NoSubstitutionTemplateLiteral, ts.SyntaxKind.TemplateHead, ts.SyntaxKind.TemplateMiddle, ts.SyntaxKind.TemplateTail, ts.SyntaxKind.RegularExpressionLiteral])
  const visit = node => {
    if (node.kind >= ts.SyntaxKind.FirstJSDocNode && node.kind <= ts.SyntaxKind.LastJSDocNode) return
    const children = node.getChildren(source).filter(child => !(child.kind >= ts.SyntaxKind.FirstJSDocNode && child.kind <= ts.SyntaxKind.LastJSDocNode))
    if (children.length) {
      children.forEach(visit)
      return
    }
    const start = node.getStart(source)
    if (node.getEnd() <= start && node.kind !== ts.SyntaxKind.EndOfFileToken) return
    gap(node.kind === ts.SyntaxKind.EndOfFileToken ? text.length : start)
    if (strings.has(node.kind)) found.push(['string', start, node.getEnd()])
    before = node.getEnd()
  }
  visit(source)
  return found
}

for (const path of files(folder)) {
  const text = readFileSync(path, 'utf8').replaceAll('\r\n', '\n')
  if (text.length > 3_000_000 || text.charCodeAt(0) === 0xfeff) continue
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, ending === '.js' ? ts.ScriptKind.JS : ts.ScriptKind.TS)
  if (source.parseDiagnostics.length) continue
  const bytes = new Uint32Array(text.length + 1)
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    bytes[i + 1] = bytes[i] + (c < 0x80 ? 1 : c < 0x800 ? 2 : c >= 0xd800 && c < 0xe000 ? 2 : 3)
  }
  const out = [`F\t${path}`]
  for (const [name, at] of declared(source)) out.push(`D\t${name}\t${source.getLineAndCharacterOfPosition(at).line + 1}`)
  for (const [region, start, end] of regions(source)) out.push(`R\t${region}\t${bytes[start]}\t${bytes[end]}`)
  process.stdout.write(out.join('\n') + '\n')
}
