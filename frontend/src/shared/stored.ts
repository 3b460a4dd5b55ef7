/** A ref that is kept in this browser, and follows what other tabs write. */
import { onScopeDispose, ref, watch, type Ref } from 'vue'

export function useStored<Value>(key: string, initial: Value): Ref<Value> {
  const name = `fidicula.${key}`
  const state = ref(read(name, initial)) as Ref<Value>
  watch(
    state,
    (value) => {
      try {
        localStorage.setItem(name, JSON.stringify(value))
      } catch {
        // A full or forbidden store keeps the value for this page alone; the page says what waits.
      }
    },
    { deep: true, flush: 'sync' },
  )
  const follow = (event: StorageEvent) => {
    if (event.key === name && event.newValue !== null) state.value = read(name, initial)
  }
  window.addEventListener('storage', follow)
  onScopeDispose(() => window.removeEventListener('storage', follow))
  return state
}

function read<Value>(name: string, initial: Value): Value {
  try {
    const text = localStorage.getItem(name)
    return text === null ? initial : (JSON.parse(text) as Value)
  } catch {
    return initial
  }
}
