// What each name in the TypeScript files below a folder means, as the type checker of the package typescript says. Needs
// Node.js and that package where Node.js finds it (NODE_PATH will do).
//
//   U path line column name path line column kind    a use, and what it is of: a method, a function or a field below the folder
//   E path line column                               a name that means something else
import { readdirSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join, relative, resolve } from 'node:path'

const ts = createRequire(process.argv[1])('typescript')
const root = resolve(process.argv[2])
const files = []
const walk = folder => {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) walk(path)
    else if (/\.tsx?$/.test(entry.name)) files.push(path)
  }
}
walk(root)
const program = ts.createProgram(files, {
  target: ts.ScriptTarget.ESNext,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  allowImportingTsExtensions: true,
  noEmit: true,
  strict: true,
  skipLibCheck: true,
})
const checker = program.getTypeChecker()
const own = new Set(files)
const place = (source, at) => {
  const { line, character } = source.getLineAndCharacterOfPosition(at)
  return `${relative(root, source.fileName)}\t${line + 1}\t${character + 1}`
}
const kindOf = node =>
  ts.isMethodDeclaration(node) || ts.isMethodSignature(node)
    ? 'method'
    : ts.isFunctionDeclaration(node)
      ? 'function'
      : ts.isPropertyDeclaration(node) ||
          ts.isPropertySignature(node) ||
          ts.isGetAccessorDeclaration(node) ||
          (ts.isParameter(node) && ts.isParameterPropertyDeclaration(node, node.parent))
        ? 'field'
        : ''
const lines = []
for (const source of program.getSourceFiles()) {
  if (!own.has(source.fileName)) continue
  const visit = node => {
    if (ts.isIdentifier(node) || ts.isPrivateIdentifier(node)) {
      const isShort = node.parent && ts.isShorthandPropertyAssignment(node.parent) && node.parent.name === node
      let symbol = isShort ? checker.getShorthandAssignmentValueSymbol(node.parent) : checker.getSymbolAtLocation(node)
      if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = checker.getAliasedSymbol(symbol)
      const declarations = symbol?.declarations ?? []
      const one = declarations[0]
      const isDeclared = declarations.some(each => each.name === node)
      if (one && !(isDeclared && kindOf(one))) {
        const kind = declarations.length === 1 && one.name && own.has(one.getSourceFile().fileName) ? kindOf(one) : ''
        const at = place(source, node.getStart(source))
        const named = one.name && node.text === one.name.text
        lines.push(
          kind && named
            ? `U\t${at}\t${node.text}\t${place(one.getSourceFile(), one.name.getStart())}\t${kind}`
            : `E\t${at}`,
        )
      }
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
}
process.stdout.write(lines.join('\n') + '\n')
