// Writes what the package luaparse says of Lua files, as DumpedTruth reads it: node lua.mjs FOLDER… >DUMP
// The package (0.3.1) is looked for in the node_modules of the folder that this is run in.
import { createRequire } from 'node:module'
import { readFileSync, readdirSync, statSync, lstatSync } from 'node:fs'
import { join } from 'node:path'

const luaparse = createRequire(process.cwd() + '/')('luaparse')
const lines = []

// a.b.c as its names, undefined if it is anything else
function names(node) {
  if (node.type === 'Identifier') return [node.name]
  if (node.type !== 'MemberExpression') return undefined
  const base = names(node.base)
  return base && [...base, node.identifier.name]
}

class Declarations {
  known = new Set()
  lines = []

  declare(parts, node, whole, path, once) {
    const container = [...path, ...parts.slice(0, -1)].join('.')
    const key = parts.join('.')
    if (once && this.known.has(key)) return
    if (path.length === 0) this.known.add(key)
    this.lines.push(['D', parts.at(-1), node.loc.start.line, whole ? whole.loc.end.line : '-', container].join('\t'))
  }

  // Statements; names that are assigned are declarations only outside of all blocks.
  block(body, path, isFile) {
    for (const node of body) {
      switch (node.type) {
        case 'FunctionDeclaration': {
          const parts = names(node.identifier)
          const at = node.identifier.type === 'MemberExpression' ? node.identifier.identifier : node.identifier
          this.declare(parts, at, node, path, false)
          this.block(node.body, [...path, ...parts], false)
          break
        }
        case 'LocalStatement':
          if (isFile) node.variables.forEach((variable) => this.declare([variable.name], variable, node, path, false))
          this.inside(node.init, isFile ? [...path, node.variables[0].name] : path)
          break
        case 'AssignmentStatement': {
          let isNew = false
          if (isFile) {
            isNew = names(node.variables[0]) && !this.known.has(names(node.variables[0]).join('.'))
            for (const variable of node.variables) {
              const parts = names(variable)
              const at = variable.type === 'MemberExpression' ? variable.identifier : variable
              if (parts) this.declare(parts, at, node, path, true)
            }
          }
          this.inside(node.init, isNew ? [...path, ...names(node.variables[0])] : path)
          break
        }
        default:
          this.inside(node, path)
      }
    }
  }

  // Functions that stand somewhere within.
  inside(node, path) {
    if (!node || typeof node !== 'object') return
    for (const [key, part] of Object.entries(node)) {
      if (key === 'body') this.block(part, path, false)
      else if (key !== 'loc') this.inside(part, path)
    }
  }
}

function regions(text) {
  const found = []
  const options = { luaVersion: 'LuaJIT', encodingMode: 'pseudo-latin1', ranges: true, comments: true }
  const tree = luaparse.parse(text, options)
  for (const comment of tree.comments) found.push(['R', 'comment', ...comment.range].join('\t'))
  const lexer = luaparse.parse(text, { ...options, wait: true })
  for (let token = lexer.lex(); token.type !== 1; token = lexer.lex()) {
    if (token.type === 2) found.push(['R', 'string', ...token.range].join('\t'))
  }
  return found
}

function read(path) {
  const bytes = readFileSync(path)
  if (bytes.includes(13) || bytes[0] === 35 || bytes[0] === 0xef) return
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return
  }
  const text = bytes.toString('latin1')
  let tree
  try {
    tree = luaparse.parse(text, { luaVersion: 'LuaJIT', encodingMode: 'pseudo-latin1', locations: true })
  } catch {
    return
  }
  const declarations = new Declarations()
  declarations.block(tree.body, [], true)
  lines.push(`F\t${path}`, ...declarations.lines, ...regions(text))
}

function walk(path) {
  if (lstatSync(path).isSymbolicLink()) return
  if (statSync(path).isDirectory()) readdirSync(path).sort().forEach((name) => walk(join(path, name)))
  else if (path.endsWith('.lua')) read(path)
}

process.argv.slice(2).forEach(walk)
process.stdout.write(lines.join('\n') + '\n')
