<script setup lang="ts">
import { HighlightStyle, LanguageDescription, syntaxHighlighting } from '@codemirror/language'
import { languages } from '@codemirror/language-data'
import { highlightSelectionMatches, openSearchPanel, search, searchKeymap } from '@codemirror/search'
import { Compartment, EditorState, StateEffect, StateField } from '@codemirror/state'
import { Decoration, type DecorationSet, EditorView, keymap, lineNumbers } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Line } from '../wire'

// The text of a file, highlighted, read-only.
const props = defineProps<{ name: string; text: string; line?: number; hits: Line[] }>()
const emit = defineEmits<{ line: [number: number] }>()
const host = ref<HTMLElement>()
let view: EditorView | undefined

const colours = HighlightStyle.define([
  { tag: [tags.keyword, tags.modifier, tags.controlKeyword, tags.operatorKeyword], fontWeight: '700' },
  { tag: [tags.comment, tags.meta], color: 'var(--soft)', fontStyle: 'italic' },
  { tag: [tags.string, tags.special(tags.string), tags.regexp], color: 'var(--good)' },
  { tag: [tags.number, tags.bool, tags.null, tags.atom], color: 'var(--code-number)' },
  { tag: [tags.typeName, tags.className, tags.tagName, tags.heading], color: 'var(--code-type)' },
  { tag: [tags.definition(tags.variableName), tags.function(tags.variableName), tags.propertyName, tags.attributeName], color: 'var(--code-name)' },
])

const mark = StateEffect.define<DecorationSet>()
const marks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, transaction) => transaction.effects.reduce((now, effect) => (effect.is(mark) ? effect.value : now), value),
  provide: field => EditorView.decorations.from(field),
})

function decorations(state: EditorState): DecorationSet {
  const ranges = []
  if (props.line && props.line <= state.doc.lines) {
    ranges.push(Decoration.line({ class: 'current-line' }).range(state.doc.line(props.line).from))
  }
  for (const hit of props.hits) {
    if (hit.number > state.doc.lines) continue
    const line = state.doc.line(hit.number)
    for (const match of hit.matches) {
      const from = line.from + match.start
      const to = Math.min(line.from + match.end, line.to)
      if (to > from) ranges.push(Decoration.mark({ tagName: 'mark' }).range(from, to))
    }
  }
  return Decoration.set(ranges, true)
}

function show() {
  if (!view) return
  view.dispatch({ effects: mark.of(decorations(view.state)) })
  if (props.line && props.line <= view.state.doc.lines) {
    view.dispatch({ effects: EditorView.scrollIntoView(view.state.doc.line(props.line).from, { y: 'center' }), selection: { anchor: view.state.doc.line(props.line).from } })
  }
}

onMounted(async () => {
  const language = new Compartment()
  view = new EditorView({
    parent: host.value,
    state: EditorState.create({
      doc: props.text.replace(/\n$/, ''), // what ends the last line does not begin another
      extensions: [
        EditorState.lineSeparator.of('\n'), // a lone carriage return is text: line numbers must agree with the service's
        EditorState.readOnly.of(true),
        EditorView.contentAttributes.of({ 'aria-label': props.name, 'aria-readonly': 'true' }),
        lineNumbers({ domEventHandlers: { mousedown: (target, block) => { emit('line', target.state.doc.lineAt(block.from).number); return true } } }),
        syntaxHighlighting(colours), marks, language.of([]), search({ top: true }), highlightSelectionMatches(), keymap.of(searchKeymap),
      ],
    }),
  })
  show()
  const known = LanguageDescription.matchFilename(languages, props.name)
  if (known) {
    const support = await known.load()
    view?.dispatch({ effects: language.reconfigure(support) })
  }
})
watch(() => [props.line, props.hits], show)
onBeforeUnmount(() => view?.destroy())
defineExpose({ find: () => { if (view) openSearchPanel(view) } })
</script>

<template><div ref="host" class="code-view" /></template>

<style>
:root { --code-number: #7a4a8c; --code-type: #1f5f8b; --code-name: #2b4d66; }
[data-theme='night'] { --code-number: #cfa4df; --code-type: #8cc4ee; --code-name: #b4cfe2; }
.code-view .cm-editor { height: 100%; font-size: 13px; background: var(--sheet); }
.code-view .cm-editor.cm-focused { outline: none; }
.code-view .cm-scroller { font-family: var(--font-mono); line-height: 1.5; }
.code-view .cm-gutters { background: var(--sheet); color: var(--soft); border-right: 1px solid var(--rule); cursor: pointer; }
.code-view .cm-lineNumbers .cm-gutterElement { padding: 0 10px 0 14px; }
.code-view .current-line { background: color-mix(in srgb, var(--mark) 30%, transparent); box-shadow: inset 3px 0 var(--accent); }
.code-view .cm-panels { background: var(--shade); color: var(--ink); border-color: var(--rule); }
.code-view .cm-panels input, .code-view .cm-panels button { font-family: var(--font-sans); border: 1px solid var(--rule); background: var(--sheet); color: var(--ink); border-radius: 3px; }
.code-view .cm-searchMatch, .code-view .cm-selectionMatch { background: color-mix(in srgb, var(--mark) 55%, transparent); }
</style>
