// What TypeScript and JavaScript declare, by the typescript package; for the scripts beside this one.
import { readdirSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'

export const required = createRequire(new URL('../../console/', import.meta.url))
export const ts = required('typescript')

export function* files(at, ending) {
  for (const entry of readdirSync(at, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(at, entry.name)
    if (entry.isDirectory()) yield* files(path, ending)
    else if (entry.name.endsWith(ending) && !entry.name.endsWith('.min.js')) yield path
  }
}

/** Types, functions, members of types, and variables of files and namespaces. */
export function declared(source) {
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
