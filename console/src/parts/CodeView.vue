<script setup lang="ts">
import { HighlightStyle, LanguageDescription, syntaxHighlighting } from '@codemirror/language'
import { languages } from '@codemirror/language-data'
import { highlightSelectionMatches } from '@codemirror/search'
import { Compartment, EditorState, StateEffect, StateField } from '@codemirror/state'
import {
  Decoration,
  type DecorationSet,
  EditorView,
  GutterMarker,
  gutter,
  MatchDecorator,
  ViewPlugin,
  type ViewUpdate,
  highlightSpecialChars,
  lineNumbers,
} from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { day } from '../amounts'
import type { Line, Match, Origin } from '../wire'
import type { Find, LineRange } from '../lines'

// The text of a file, highlighted, read-only. Beside the scrollbar stands where its matches are.
const props = defineProps<{
  name: string
  text: string
  range?: LineRange
  hits: Line[]
  find?: Find
  /** What is found, in units of the text: the service finds it. */
  matches?: Match[]
  wrap?: boolean
  regions?: number[]
  origins?: Origin[]
}>()
const emit = defineEmits<{
  range: [range: LineRange]
  found: [count: number, at: number]
  selected: [range: LineRange | undefined, code: string]
  name: [line: number, column: number]
  seen: [line: number]
  origin: [origin: Origin]
}>()
const host = ref<HTMLElement>()
const MOST_TICKS = 300
let view: EditorView | undefined
let chosen = false // whether the range was chosen here, by line numbers
function choose(from: number, to: number) {
  chosen = props.range?.from !== from || props.range?.to !== to
  emit('range', { from, to })
}

const colours = HighlightStyle.define([
  { tag: [tags.keyword, tags.modifier, tags.controlKeyword, tags.operatorKeyword], fontWeight: '700' },
  { tag: tags.meta, color: 'var(--soft)' },
  { tag: [tags.number, tags.bool, tags.null, tags.atom], color: 'var(--code-number)' },
  { tag: [tags.typeName, tags.className, tags.tagName, tags.heading], color: 'var(--code-type)' },
  {
    tag: [tags.definition(tags.variableName), tags.function(tags.variableName), tags.propertyName, tags.attributeName],
    color: 'var(--code-name)',
  },
])

const mark = StateEffect.define<DecorationSet>()
const marks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, transaction) =>
    transaction.effects.reduce((now, effect) => (effect.is(mark) ? effect.value : now), value),
  provide: field => EditorView.decorations.from(field),
})
// Comments and strings are where the index has them: what code( ), comment( ) and string( ) find is what is coloured so.
const markRegions = StateEffect.define<DecorationSet>()
const regionMarks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, transaction) =>
    transaction.effects.reduce((now, effect) => (effect.is(markRegions) ? effect.value : now), value),
  provide: field => EditorView.decorations.from(field),
})
const commentMark = Decoration.mark({ class: 'region-comment' })
const stringMark = Decoration.mark({ class: 'region-string' })

function paintRegions() {
  if (!view || !props.regions) return
  const ranges = []
  const end = view.state.doc.length
  for (let i = 0; i + 2 < props.regions.length; i += 3) {
    const from = props.regions[i]!
    const to = Math.min(end, props.regions[i + 1]!)
    if (from < to) ranges.push((props.regions[i + 2] === 1 ? commentMark : stringMark).range(from, to))
  }
  view.dispatch({ effects: markRegions.of(Decoration.set(ranges)) })
}

// Addresses in the text lead where they say; what stands behind them as a sentence's end does not belong to them.
const addressed = new MatchDecorator({
  regexp: /\bhttps?:\/\/[^\s<>"'`\\^{}|]*[^\s<>"'`\\^{}|.,;:!?)\]*]/g,
  decoration: match =>
    Decoration.mark({
      tagName: 'a',
      attributes: { href: match[0], target: '_blank', rel: 'noopener noreferrer', tabindex: '-1' },
    }),
})
const addresses = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet
    constructor(target: EditorView) {
      this.decorations = addressed.createDeco(target)
    }
    update(update: ViewUpdate) {
      this.decorations = addressed.updateDeco(update, this.decorations)
    }
  },
  { decorations: plugin => plugin.decorations },
)

// Where each line comes from: told once for lines of the same commit; the older, the paler.
const SHADES = 8
const AGAIN = 12 // of many lines, every so many say where they come from
class OriginMarker extends GutterMarker {
  constructor(
    readonly origin: Origin,
    readonly first: boolean,
    readonly shade: number,
  ) {
    super()
  }
  override eq(other: OriginMarker) {
    return other.origin === this.origin && other.first === this.first
  }
  override toDOM() {
    const element = document.createElement('span')
    element.className = `origin origin-${this.shade}`
    if (this.first) {
      element.textContent = `${this.origin.authored.slice(0, 10)}  ${this.origin.author.name}`
      element.title = `${day(this.origin.authored)}, ${this.origin.author.name}\n${this.origin.summary}\n${this.origin.commit.slice(0, 10)}`
    }
    return element
  }
}
function originMarkers(): (OriginMarker | undefined)[] {
  const markers: (OriginMarker | undefined)[] = []
  const times = (props.origins ?? []).map(origin => Date.parse(origin.authored))
  const [oldest, newest] = [Math.min(...times), Math.max(...times)]
  let before = ''
  props.origins?.forEach((origin, i) => {
    const shade = newest > oldest ? Math.round(((times[i]! - oldest) / (newest - oldest)) * (SHADES - 1)) : SHADES - 1
    for (let line = origin.fromLine; line <= origin.toLine; line++)
      markers[line] = new OriginMarker(
        origin,
        (line - origin.fromLine) % AGAIN === 0 && (line > origin.fromLine || origin.commit !== before),
        shade,
      )
    before = origin.commit
  })
  return markers
}
const originGutter = new Compartment()
function originMargin() {
  if (!props.origins) return []
  const markers = originMarkers()
  return gutter({
    class: 'origins',
    renderEmptyElements: false,
    lineMarker: (target, block) => markers[target.state.doc.lineAt(block.from).number] ?? null,
    domEventHandlers: {
      mousedown: (target, block) => {
        const marker = markers[target.state.doc.lineAt(block.from).number]
        if (marker) emit('origin', marker.origin)
        return true
      },
    },
  })
}

interface Span {
  from: number
  to: number
}
const found = shallowRef<Span[]>([]) // what is looked for within the file
let at = -1

/** Where the hits of the search stand. */
function hitSpans(state: EditorState): Span[] {
  const spans: Span[] = []
  for (const hit of props.hits) {
    if (hit.number > state.doc.lines) continue
    const line = state.doc.line(hit.number)
    for (const match of hit.matches) {
      const from = line.from + match.start
      const to = Math.min(line.from + match.end, line.to)
      if (to > from) spans.push({ from, to })
    }
  }
  return spans
}

function paint() {
  if (!view) return
  const { state } = view
  const ranges = []
  for (let line = props.range?.from ?? 1; props.range && line <= Math.min(props.range.to, state.doc.lines); line++) {
    ranges.push(Decoration.line({ class: 'current-line' }).range(state.doc.line(line).from))
  }
  const searched = props.find?.text ? found.value : hitSpans(state)
  searched.forEach((span, i) =>
    ranges.push(
      Decoration.mark({ tagName: 'mark', class: props.find?.text && i === at ? 'current-match' : '' }).range(
        span.from,
        span.to,
      ),
    ),
  )
  view.dispatch({ effects: mark.of(Decoration.set(ranges, true)) })
}

/** Ticks beside the scrollbar, as shares of the height. */
const lines = ref(1)
const filled = ref(1) // share of the height that the text takes
const ticks = computed(() => {
  const numbers =
    props.find?.text && view
      ? found.value.map(span => view!.state.doc.lineAt(span.from).number)
      : props.hits.map(hit => hit.number)
  const byPlace = new Map<number, number>() // the first line of those that would be drawn over each other
  for (const line of numbers) {
    const place = Math.floor((MOST_TICKS * (line - 0.5)) / lines.value)
    if (!byPlace.has(place)) byPlace.set(place, line)
  }
  return [...byPlace.values()].map(line => ({ line, top: (100 * filled.value * (line - 0.5)) / lines.value }))
})

/** @param goes whether to go to the first match that is in sight or below */
function lookFor(goes: boolean) {
  found.value = []
  at = -1
  if (view && props.find?.text) {
    const { state } = view
    const within = props.find.within
    const from = within ? state.doc.line(Math.min(within.from, state.doc.lines)).from : 0
    const to = within ? state.doc.line(Math.min(within.to, state.doc.lines)).to : state.doc.length
    const spans = (props.matches ?? [])
      .map(match => ({ from: match.start, to: Math.min(match.end, state.doc.length) }))
      .filter(span => span.from >= from && span.to <= to && span.from < span.to)
    found.value = spans
    const seen = view.lineBlockAtHeight(view.scrollDOM.scrollTop).from
    const first = Math.max(
      0,
      spans.findIndex(span => span.from >= seen),
    )
    if (spans.length && goes) go(first)
    else if (spans.length) at = first
  }
  emit('found', found.value.length, at)
  paint()
}
function go(index: number) {
  at = index
  const span = found.value[index]
  if (view && span) view.dispatch({ effects: EditorView.scrollIntoView(span.from, { y: 'center', x: 'nearest' }) })
}
/** To the next match, or the one before; the ends meet. */
function step(by: number) {
  if (!found.value.length) return
  go((at + by + found.value.length) % found.value.length)
  emit('found', found.value.length, at)
  paint()
}
function toLine(line: number) {
  if (view)
    view.dispatch({
      effects: EditorView.scrollIntoView(view.state.doc.line(Math.min(line, view.state.doc.lines)).from, {
        y: 'center',
      }),
    })
}
function show() {
  if (!view) return
  paint()
  if (props.range && props.range.from <= view.state.doc.lines) {
    const anchor = view.state.doc.line(props.range.from).from
    const first = props.hits.find(hit => hit.number === props.range!.from)?.matches[0]
    view.dispatch({
      effects: EditorView.scrollIntoView(
        Math.min(anchor + (first?.start ?? 0), view.state.doc.line(props.range.from).to),
        { y: 'center' },
      ),
      selection: { anchor },
    })
  }
}

let pressed: number | undefined // the line number on which the mouse went down
onMounted(async () => {
  const language = new Compartment()
  const lineAt = (target: EditorView, block: { from: number }) => target.state.doc.lineAt(block.from).number
  view = new EditorView({
    parent: host.value,
    state: EditorState.create({
      doc: props.text.replace(/\n$/, ''), // what ends the last line does not begin another
      extensions: [
        EditorState.lineSeparator.of('\n'), // a lone carriage return is text: line numbers must agree with the service's
        EditorState.readOnly.of(true),
        highlightSpecialChars({ addSpecialChars: /[\u202a-\u202e\u2066-\u2069]/g }),
        EditorView.contentAttributes.of({ tabindex: '0', 'aria-label': props.name, 'aria-readonly': 'true' }),
        originGutter.of(originMargin()),
        lineNumbers({
          domEventHandlers: {
            mousedown: (target, block, event) => {
              const line = lineAt(target, block)
              pressed = line
              const from = (event as MouseEvent).shiftKey && props.range ? props.range.from : line
              choose(Math.min(from, line), Math.max(from, line))
              return true
            },
            mouseup: (target, block) => {
              const line = lineAt(target, block)
              if (pressed !== undefined && pressed !== line) choose(Math.min(pressed, line), Math.max(pressed, line))
              pressed = undefined
              return true
            },
          },
        }),
        EditorView.updateListener.of(update => {
          if (!update.selectionSet) return
          const { main } = update.state.selection
          const last = update.state.doc.lineAt(main.to)
          const from = update.state.doc.lineAt(main.from).number
          emit(
            'selected',
            main.empty
              ? undefined
              : { from, to: Math.max(from, main.to === last.from ? last.number - 1 : last.number) },
            update.state.sliceDoc(main.from, main.to),
          )
        }),
        EditorView.domEventHandlers({
          click: (event, target) => {
            const position = target.posAtCoords({ x: event.clientX, y: event.clientY })
            if (
              position === null ||
              !target.state.selection.main.empty ||
              !(event.target as HTMLElement).closest('.cm-line') ||
              (event.target as HTMLElement).closest('a')
            )
              return
            const line = target.state.doc.lineAt(position)
            emit('name', line.number, position - line.from + 1)
          },
          scroll: (_, target) => {
            emit('seen', target.state.doc.lineAt(target.lineBlockAtHeight(target.scrollDOM.scrollTop + 40).from).number)
          },
        }),
        props.wrap ? EditorView.lineWrapping : [],
        EditorView.updateListener.of(update => {
          if (update.geometryChanged)
            filled.value = Math.min(1, update.view.contentHeight / Math.max(1, update.view.scrollDOM.clientHeight))
        }),
        syntaxHighlighting(colours),
        addresses,
        regionMarks,
        marks,
        language.of([]),
        highlightSelectionMatches(),
      ],
    }),
  })
  lines.value = view.state.doc.lines
  paintRegions()
  show()
  if (props.find?.text) lookFor(true)
  const known = LanguageDescription.matchFilename(languages, props.name)
  if (known) {
    const support = await known.load()
    view?.dispatch({ effects: language.reconfigure(support) })
  }
})
watch(() => props.regions, paintRegions)
watch(
  () => props.origins,
  () => view?.dispatch({ effects: originGutter.reconfigure(originMargin()) }),
)
watch(() => props.hits, paint)
watch(
  () => [props.range?.from, props.range?.to],
  (now, before) => {
    if (now[0] === before[0] || chosen || !view)
      paint() // who chooses lines sees them: the place stays
    else show()
    chosen = false
  },
)
watch(
  () => props.matches,
  () => lookFor(true),
)
watch(
  () => [props.find?.text, props.find?.within?.from, props.find?.within?.to],
  () => lookFor(false),
)
onBeforeUnmount(() => view?.destroy())
defineExpose({ step, toLine, focus: () => view?.focus() })
</script>

<template>
  <div class="relative">
    <div ref="host" class="code-view h-full" />
    <div v-if="ticks.length" class="absolute inset-y-0 right-0 z-10 w-2" data-part="outline" aria-hidden="true">
      <button
        v-for="tick in ticks"
        :key="tick.line"
        type="button"
        tabindex="-1"
        class="absolute right-0 h-[3px] w-full bg-accent hover:h-[6px]"
        :style="{ top: `calc(${tick.top}% - 1px)` }"
        :title="`Line ${tick.line}`"
        @click="toLine(tick.line)"
      />
    </div>
  </div>
</template>

<style>
:root {
  --code-number: #7a4a8c;
  --code-type: #1f5f8b;
  --code-name: #2b4d66;
}
[data-theme='night'] {
  --code-number: #cfa4df;
  --code-type: #8cc4ee;
  --code-name: #b4cfe2;
}
.code-view .cm-editor {
  height: 100%;
  font-size: 13px;
  background: var(--sheet);
}
.code-view .cm-editor.cm-focused {
  outline: none;
}
.code-view .cm-scroller {
  font-family: var(--font-mono);
  line-height: 1.5;
}
.code-view .cm-gutters {
  background: var(--sheet);
  color: var(--soft);
  border-right: 1px solid var(--rule);
  cursor: pointer;
  user-select: none;
}
.code-view .origins .cm-gutterElement {
  padding: 0;
}
.code-view .origin {
  display: block;
  width: 15.5rem;
  height: 100%;
  overflow: hidden;
  padding: 0 8px;
  border-left: 4px solid transparent;
  font-family: var(--font-sans);
  font-size: 12px;
  text-overflow: ellipsis;
  white-space: pre;
}
.code-view .origin:hover {
  color: var(--ink);
}
.code-view .origin-0 {
  border-color: color-mix(in srgb, var(--accent) 4%, transparent);
}
.code-view .origin-1 {
  border-color: color-mix(in srgb, var(--accent) 12%, transparent);
}
.code-view .origin-2 {
  border-color: color-mix(in srgb, var(--accent) 24%, transparent);
}
.code-view .origin-3 {
  border-color: color-mix(in srgb, var(--accent) 36%, transparent);
}
.code-view .origin-4 {
  border-color: color-mix(in srgb, var(--accent) 50%, transparent);
}
.code-view .origin-5 {
  border-color: color-mix(in srgb, var(--accent) 66%, transparent);
}
.code-view .origin-6 {
  border-color: color-mix(in srgb, var(--accent) 82%, transparent);
}
.code-view .origin-7 {
  border-color: var(--accent);
}
.code-view .cm-lineNumbers .cm-gutterElement {
  padding: 0 10px 0 14px;
}
.code-view .current-line {
  background: color-mix(in srgb, var(--mark) 30%, transparent);
  box-shadow: inset 3px 0 var(--accent);
}
.code-view .current-match {
  outline: 2px solid var(--accent);
}
.code-view .cm-line a {
  text-decoration: underline dotted;
}
.code-view .cm-line a:hover {
  color: var(--accent);
  text-decoration: underline;
}
.code-view .cm-selectionMatch {
  background: color-mix(in srgb, var(--mark) 55%, transparent);
}
</style>
