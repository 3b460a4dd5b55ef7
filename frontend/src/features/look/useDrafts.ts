/** What was chosen and typed of an item and is not saved yet: nothing is lost by leaving. */
import { computed, type ComputedRef } from 'vue'
import type { ItemView } from '@/api'
import { useStoredRecord } from '@/shared/storedRecord'

export interface Draft {
  verdict: string
  findings: string[]
  words: string
}

export interface UseDraftsReturn {
  draft: ComputedRef<Draft>
  /** Findings of the draft that lead on to something. */
  leading: ComputedRef<ItemView['findings']>
  isChanged: ComputedRef<boolean>
  change: (part: Partial<Draft>) => void
  forget: (name: string) => void
  /** A draft that could not be saved; what was changed there since stays. */
  giveBack: (name: string, was: Draft) => void
  /** What the findings ask for is said by the server when none was chosen here. */
  toggle: (finding: string) => void
}

const EMPTY: Draft = { verdict: '', findings: [], words: '' }

function saved(of: ItemView): Draft {
  return { verdict: of.verdict, findings: of.findings.filter((row) => row.is_seen).map((row) => row.finding), words: of.words }
}

/** key : of the instrument and item in hand.  changed : called with each change. */
export function useDrafts(key: ComputedRef<string>, item: ComputedRef<ItemView | null>, changed: () => void): UseDraftsReturn {
  const { record: drafts, set } = useStoredRecord<Draft>('look')
  const draft = computed<Draft>(() => drafts.value[key.value] ?? (item.value ? saved(item.value) : EMPTY))
  const leading = computed(() => item.value?.findings.filter((row) => row.leads_to && draft.value.findings.includes(row.finding)) ?? [])
  const isChanged = computed(() => key.value in drafts.value)

  function change(part: Partial<Draft>): void {
    set(key.value, { ...draft.value, ...part })
    changed()
  }
  function forget(name: string): void {
    set(name, undefined)
  }
  function giveBack(name: string, was: Draft): void {
    if (!(name in drafts.value)) set(name, was)
  }
  function toggle(finding: string): void {
    const there = draft.value.findings
    change({ findings: there.includes(finding) ? there.filter((one) => one !== finding) : [...there, finding], verdict: '' })
  }

  return { draft, leading, isChanged, change, forget, giveBack, toggle }
}
