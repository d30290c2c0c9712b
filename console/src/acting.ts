import { ref } from 'vue'

/** What a page does for somebody: what went wrong and what was done is told until the next thing is tried. */
export function useActing() {
  const problem = ref('')
  const done = ref('')
  const busy = ref(false)
  async function act(what: () => Promise<unknown>) {
    problem.value = ''
    done.value = ''
    busy.value = true
    try {
      await what()
    } catch (error) {
      problem.value = (error as Error).message
    } finally {
      busy.value = false
    }
  }
  return { problem, done, busy, act }
}
