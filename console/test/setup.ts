// What jsdom lacks.
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.IntersectionObserver = Observer as unknown as typeof IntersectionObserver
