// Writes what the package mvdan-sh says of shell scripts, as DumpedTruth reads it: node shell.mjs FOLDER… >DUMP
// The package (0.10.1) is looked for in the node_modules of the folder that this is run in.
import { createRequire } from 'node:module'
import { lstatSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'

const { syntax } = createRequire(process.cwd() + '/')('mvdan-sh')
const DECLARE = ['export', 'readonly', 'declare', 'typeset', 'local']

function told(text) {
  const parser = syntax.NewParser(syntax.Variant(syntax.LangBash))
  const found = []
  const known = new Set()
  const around = [] // functions that are open: [name, the last offset]
  const hidden = [] // substitutions that are open: the last offset
  const variable = (name, line) => {
    if (around.length || hidden.length || known.has(name)) return
    known.add(name)
    found.push(['D', name, line, '-', ''].join('\t'))
  }
  syntax.Walk(parser.Parse(text, 'a'), (node) => {
    if (!node) return true
    const from = node.Pos().Offset()
    const to = node.End().Offset()
    while (around.length && around.at(-1)[1] <= from) around.pop()
    while (hidden.length && hidden.at(-1) <= from) hidden.pop()
    switch (syntax.NodeType(node)) {
      case 'FuncDecl': {
        const name = node.Name.Value
        let body = node.Body
        while (body.Cmd && syntax.NodeType(body.Cmd) === 'BinaryCmd') body = body.Cmd.X // it is read too far
        const end = body.Cmd ? body.Cmd.End() : body.End()
        found.push(['D', name, node.Name.Pos().Line(), end.Line(), around.map(([outer]) => outer).join('.')].join('\t'))
        around.push([name, end.Offset()])
        break
      }
      case 'CmdSubst':
      case 'ProcSubst':
        hidden.push(to)
        break
      case 'CallExpr':
        if (node.Args.length === 0) {
          for (const assign of node.Assigns) {
            if (!assign.Append && !assign.Index) variable(assign.Name.Value, assign.Pos().Line())
          }
        } else if (node.Args[0].Lit() === 'alias') {
          for (const word of node.Args.slice(1)) {
            const first = word.Parts[0].Value ?? ''
            if (/^\w+=/.test(first)) variable(first.slice(0, first.indexOf('=')), word.Pos().Line())
          }
        }
        break
      case 'DeclClause':
        if (DECLARE.includes(node.Variant.Value)) {
          for (const assign of node.Args) {
            if (assign.Name && !assign.Naked && !assign.Append && !assign.Index) {
              variable(assign.Name.Value, assign.Pos().Line())
            }
          }
        }
        break
    }
    return true
  })
  return found
}

function read(path) {
  const bytes = readFileSync(path)
  const isShell = /^#! ?\/(usr\/)?bin\/(env )?(ba|da)?sh\b/.test(bytes.subarray(0, 60).toString('latin1'))
  if (!isShell && !path.endsWith('.sh') && !path.includes('/bash-completion/completions/')) return
  if (bytes.includes(13) || bytes.includes(0) || bytes.length > 500_000) return
  const text = bytes.toString('utf8')
  if (!Buffer.from(text).equals(bytes)) return
  try {
    console.log([`F\t${path}`, ...told(text)].join('\n'))
  } catch {
    // not taken by the parser
  }
}

function walk(path) {
  const stat = lstatSync(path)
  if (stat.isDirectory()) readdirSync(path).sort().forEach((name) => walk(join(path, name)))
  else if (stat.isFile()) read(path)
}

process.argv.slice(2).forEach(walk)
