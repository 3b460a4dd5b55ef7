/** Values by name, each kept in this browser by itself, so that two tabs never write over each other's. */
import { useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'

export interface UseStoredRecordReturn<Value> {
  record: Ref<Record<string, Value>>
  /** Undefined forgets it. */
  set: (name: string, value: Value | undefined) => void
}

export function useStoredRecord<Value>(kind: string): UseStoredRecordReturn<Value> {
  const prefix = `fidicula.${kind}/`
  const record = ref(readAll<Value>(prefix)) as Ref<Record<string, Value>>

  function show(name: string, value: Value | undefined): void {
    const rest = Object.fromEntries(Object.entries(record.value).filter(([one]) => one !== name))
    record.value = value === undefined ? rest : { ...rest, [name]: value }
  }
  function set(name: string, value: Value | undefined): void {
    show(name, value)
    try {
      if (value === undefined) localStorage.removeItem(prefix + name)
      else localStorage.setItem(prefix + name, JSON.stringify(value))
    } catch {
      // A full or forbidden store keeps the value for this page alone.
    }
  }
  useEventListener(window, 'storage', (event: StorageEvent) => {
    if (event.key?.startsWith(prefix)) show(event.key.slice(prefix.length), parsed<Value>(event.newValue))
  })

  return { record, set }
}

function readAll<Value>(prefix: string): Record<string, Value> {
  const found: Record<string, Value> = {}
  try {
    for (const key of Object.keys(localStorage)) {
      const value = key.startsWith(prefix) ? parsed<Value>(localStorage.getItem(key)) : undefined
      if (value !== undefined) found[key.slice(prefix.length)] = value
    }
  } catch {
    // Nothing is kept in this browser.
  }
  return found
}

function parsed<Value>(text: string | null): Value | undefined {
  try {
    return text === null ? undefined : (JSON.parse(text) as Value)
  } catch {
    return undefined
  }
}
