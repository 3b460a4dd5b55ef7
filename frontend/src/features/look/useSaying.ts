/** Saying what an item is: it stands in the list at once, and comes back with its words where the server refuses it. */
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import { Refused, type ItemView, type SeenBody } from '@/api'
import { useBench } from '@/features/bench'
import { post, useOutbox } from '@/outbox'
import { freshId } from '@/shared/id'
import type { Draft } from './useDrafts'
import { t } from '@/words/look'

const SEEN = '/api/instruments/{ticket}/items/{item}/seen'

/** waits : it was said here, and the server's list does not tell of it yet. */
export interface SaidItem extends ItemView {
  waits: boolean
}

export interface SayingOptions {
  ticket: () => string
  /** As the server has them. */
  rows: Ref<ItemView[]>
  load: () => Promise<void>
  /** What was refused is a draft again. */
  giveBack: (name: string, draft: Draft) => void
}

export interface UseSayingReturn {
  items: ComputedRef<SaidItem[]>
  /** What was refused of items, by ticket and item. */
  refusals: Ref<Record<string, string>>
  say: (item: ItemView, draft: Draft) => Promise<void>
}

export function useSaying({ ticket, rows, load, giveBack }: SayingOptions): UseSayingReturn {
  const bench = useBench()
  const outbox = useOutbox()
  const refusals = ref<Record<string, string>>({})
  /** Said here, by ticket and item, until a list is there that was asked for afterwards. */
  const given = ref<Record<string, SeenBody>>({})
  const waiting = computed(() => outbox.rows.filter((row) => row.path === SEEN && row.ticket === ticket() && row.state !== 'refused'))

  const items = computed(() =>
    rows.value.map((row): SaidItem => {
      const sent = waiting.value.filter((one) => one.params.path?.item === row.item).at(-1)
      const said = (sent?.body as SeenBody | undefined) ?? given.value[`${ticket()}/${row.item}`]
      if (!said) return { ...row, waits: false }
      const findings = row.findings.map((one) => ({ ...one, is_seen: said.findings?.includes(one.finding) ?? false }))
      // What findings alone ask for is said by the server; until then it is work.
      return { ...row, verdict: said.verdict || 'work', words: said.words ?? '', findings, waits: true }
    }),
  )

  function forget(name: string, body: SeenBody): void {
    if (given.value[name]?.id === body.id) given.value = Object.fromEntries(Object.entries(given.value).filter(([one]) => one !== name))
  }

  async function say({ item, label }: ItemView, draft: Draft): Promise<void> {
    const name = `${ticket()}/${item}`
    const body = { id: freshId(), ...draft }
    given.value = { ...given.value, [name]: body }
    refusals.value = { ...refusals.value, [name]: '' }
    try {
      const isSent = await bench.submit((of) => post(SEEN, { params: { path: { ticket: of, item } }, body, words: t('inspection', { label }) }))
      if (isSent) await load()
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      refusals.value = { ...refusals.value, [name]: error.away ? t('the_server_does_not_answer') : error.message }
      giveBack(name, draft)
    } finally {
      forget(name, body)
    }
  }
  return { items, refusals, say }
}
