// Writes what the typescript package says of TypeScript and JavaScript files, as DumpedTruth reads it:
//   node typescript.mjs FOLDER .ts|.js >DUMP      (typescript is looked for in console/node_modules)
import { readFileSync } from 'node:fs'
import { declared, files, ts } from './typescript-declared.mjs'

const [folder, ending] = process.argv.slice(2)

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

for (const path of files(folder, ending)) {
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
