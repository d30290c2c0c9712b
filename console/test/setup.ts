// What jsdom lacks.
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.IntersectionObserver = Observer as unknown as typeof IntersectionObserver
globalThis.ResizeObserver = Observer as unknown as typeof ResizeObserver
window.matchMedia = () =>
  ({ matches: false, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList
window.scrollTo = () => {}
Element.prototype.scrollIntoView = () => {}
