import { nextTick, onBeforeUnmount, watch, type Ref } from 'vue'

/** Asks for more whenever what stands below a list comes near. */
export function whenEndIsNear(end: Ref<HTMLElement | undefined>, list: Ref<unknown>, more: () => Promise<void>) {
  const observer = new IntersectionObserver(
    entries => {
      if (entries.some(entry => entry.isIntersecting)) void more()
    },
    { rootMargin: '600px' },
  )
  watch(
    list,
    () =>
      void nextTick(() => {
        if (end.value) {
          observer.unobserve(end.value)
          observer.observe(end.value)
        }
      }),
  ) // it may still be near
  onBeforeUnmount(() => observer.disconnect())
}
