<script module>
  export const MOST = 12
  export function berth(name) { const inner = name; return inner }
</script>

<script lang="ts">
  import { onMount, type Snippet } from 'svelte'
  type Props = { title: string; children?: Snippet }
  let { title, children, ...rest }: Props = $props()
  let count = $state(0)
  const twice = $derived(count * 2)
  function add(by: number) { count += by }
  class Rope { length = $state(3); default() {} }
  interface Knot { default: string; type?: 'reef' }
</script>

<svelte:head><title>{title}</title></svelte:head>
{#if count > 3}
  <p id="many" {...rest}>{count} id="no"</p>
{:else}
  <p id={title}>few</p>
  <p id="row-{count}"></p><b id="{title}"></b>
{/if}
{#each [1, 2] as at (at)}<i id='each'>{at}</i>{/each}
{#snippet rope(length)}<u id="rope">{length}</u>{/snippet}
<button id=add onclick={() => { const no = 1; add(no) }}>{twice}</button>
{@render children?.()}

<style>
  #many { color: red }
</style>
