import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/**
 * Something that is asked for when the page opens, and again after so many milliseconds while it is open. What was
 * answered last stays while nothing is.
 */
export function useAgain<T>(ask: () => Promise<T>, each: number) {
  const answer = ref() as Ref<T | undefined>
  const problem = ref('')
  let timer = 0
  async function load() {
    try {
      answer.value = await ask()
      problem.value = ''
    } catch (error) {
      problem.value = (error as Error).message
    }
  }
  onMounted(() => {
    void load()
    timer = window.setInterval(load, each)
  })
  onBeforeUnmount(() => window.clearInterval(timer))
  return { answer, problem, load }
}
