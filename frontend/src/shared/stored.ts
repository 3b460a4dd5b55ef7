/** A ref that is kept in this browser, and follows what other tabs write. */
import { useStorage } from '@vueuse/core'
import type { Ref } from 'vue'

export function useStored<Value>(key: string, initial: Value): Ref<Value> {
  const parse = { read: (text: string) => JSON.parse(text) as Value, write: (value: Value) => JSON.stringify(value) }
  // A full or forbidden store keeps the value for this page alone.
  return useStorage<Value>(`fidicula.${key}`, initial, undefined, { serializer: parse, writeDefaults: false, onError: () => undefined })
}
