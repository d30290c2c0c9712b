// Writes what is declared in files of markup with code in them, as DumpedTruth reads it: what the typescript package
// says of their scripts, and the ids of their elements by the parser of the markup.
//   node components.mjs FOLDER .vue|.svelte|.html >DUMP
// @vue/compiler-sfc and parse5 are looked for in console/node_modules, svelte where NODE_PATH says.
import { readFileSync } from 'node:fs'
import { declared, files, required, ts } from './typescript-declared.mjs'

const [folder, ending] = process.argv.slice(2)

/** @returns the scripts [code, offset, whether it is TypeScript], the ids [name, offset] and the offsets of styles [start, end] */
const parsers = {
  '.vue': () => {
    const { parse } = required('@vue/compiler-sfc')
    return text => {
      const { descriptor, errors } = parse(text, { sourceMap: false })
      if (errors.length) return null
      const scripts = [descriptor.script, descriptor.scriptSetup].filter(Boolean)
      const ids = []
      const visit = node => {
        for (const prop of node.props ?? []) {
          if (prop.type === 6 && prop.name === 'id' && prop.value?.content) ids.push([prop.value.content, prop.value.loc.start.offset])
        }
        node.children?.forEach(visit)
      }
      if (descriptor.template?.ast) visit(descriptor.template.ast)
      return {
        scripts: scripts.map(each => [each.content, each.loc.start.offset, /tsx?/.test(each.lang ?? '')]),
        ids,
        untold: [...descriptor.styles, ...descriptor.customBlocks].map(each => [each.loc.start.offset, each.loc.end.offset])
      }
    }
  },
  '.svelte': () => {
    const { parse } = required('svelte/compiler')
    return text => {
      const root = parse(text, { modern: true })
      const ids = []
      const visit = node => {
        for (const attribute of node.attributes ?? []) {
          const value = Array.isArray(attribute.value) ? attribute.value : []
          if (attribute.type === 'Attribute' && attribute.name === 'id' && value.length === 1 && value[0].type === 'Text' && value[0].raw) ids.push([value[0].raw, value[0].start])
        }
        for (const part of [node, node.fragment, node.consequent, node.alternate, node.body, node.fallback, node.pending, node.then, node.catch]) part?.nodes?.forEach(visit)
      }
      visit(root.fragment)
      return {
        scripts: [root.instance, root.module].filter(Boolean).map(each => [
          text.slice(each.content.start, each.content.end), each.content.start, each.attributes.some(of => of.name === 'lang')
        ]),
        ids,
        untold: root.css ? [[root.css.start, root.css.end]] : []
      }
    }
  },
  '.html': () => {
    const { parse } = required('parse5')
    return text => {
      const scripts = []
      const ids = []
      const untold = []
      const visit = node => {
        const at = node.sourceCodeLocation
        for (const { name, value } of node.attrs ?? []) {
          const place = at?.attrs?.[name]
          if (name === 'id' && value && place) ids.push([value, text.indexOf(value, text.indexOf('=', place.startOffset))])
        }
        const inside = at?.startTag && at.endTag ? [at.startTag.endOffset, at.endTag.startOffset] : null
        const type = node.attrs?.find(each => each.name === 'type')?.value ?? ''
        if (node.tagName === 'script' && inside && (!type || /javascript|module/.test(type))) scripts.push([text.slice(...inside), inside[0], false])
        if ((node.tagName === 'style' || type.includes('json')) && inside) untold.push(inside)
        node.childNodes?.forEach(visit)
        if (node.content) visit(node.content)
      }
      visit(parse(text, { sourceCodeLocationInfo: true }))
      return { scripts, ids, untold }
    }
  }
}
const parse = parsers[ending]()

for (const path of files(folder, ending)) {
  const text = readFileSync(path, 'utf8').replaceAll('\r\n', '\n')
  if (text.length > 3_000_000 || text.charCodeAt(0) === 0xfeff || text.includes('\ufffd')) continue
  let parts
  try {
    parts = parse(text)
  } catch {
    continue
  }
  if (!parts) continue
  const lines = [0]
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines.push(at + 1)
  const line = offset => {
    let low = 0
    let high = lines.length
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (lines[middle] <= offset) low = middle
      else high = middle
    }
    return low + 1
  }
  const out = [`F\t${path}`]
  let broken = false
  for (const [code, offset, typed] of parts.scripts) {
    const source = ts.createSourceFile(path, code, ts.ScriptTarget.Latest, true, typed ? ts.ScriptKind.TS : ts.ScriptKind.JS)
    broken ||= source.parseDiagnostics.length > 0
    for (const [name, at] of declared(source)) out.push(`D\t${name}\t${line(offset + at)}`)
  }
  if (broken) continue
  for (const [name, at] of parts.ids) out.push(`D\t${name}\t${line(text[at] === '"' || text[at] === "'" ? at + 1 : at)}`)
  for (const [start, end] of parts.untold) out.push(`X\t${line(start)}\t${line(end)}`)
  process.stdout.write(out.join('\n') + '\n')
}
