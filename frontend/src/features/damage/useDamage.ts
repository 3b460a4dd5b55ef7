/** The damage map of an instrument: what is marked, and every look that is entered here. */
import { watch, type Ref, type ShallowRef } from 'vue'
import { answerOf, api, Refused, type DamageLook, type DamageMap, type DamageSignature } from '@/api'
import { useBench } from '@/features/bench'
import { post, useOutbox, type Act } from '@/outbox'
import { freshId } from '@/shared/id'
import { useLoaded } from '@/shared/loaded'
import { t } from '@/words/damage'

const PHOTOS = '/api/instruments/{ticket}/photos'

export interface UseDamageReturn {
  view: ShallowRef<DamageMap | null>
  failure: Ref<string>
  /** These throw Refused, for their forms. */
  look: (body: DamageLook) => Promise<void>
  sign: (body: DamageSignature) => Promise<void>
  takeBack: (id: string) => Promise<void>
  photograph: (files: Iterable<File>, mark: { thing: string; item: string; label: string }) => Promise<void>
}

export function useDamage(ticket: () => string): UseDamageReturn {
  const bench = useBench()
  const outbox = useOutbox()
  const { found: view, failure, load } = useLoaded(ticket, (of) => answerOf(api.GET('/api/instruments/{ticket}/damage', { params: { path: { ticket: of } } })))
  /* What is marked at another bench, or done at this instrument, shows here too. */
  watch(() => bench.sheet, (now, before) => {
    if (now && before) void load()
  })

  /** At the instrument that shows now; what it answered, while that still shows. */
  async function submit(act: Act): Promise<void> {
    const of = ticket()
    failure.value = ''
    const done = await outbox.submit(act)
    if (!done.sent || of !== ticket()) return
    await load()
  }
  async function takeBack(entry_id: string): Promise<void> {
    try {
      await submit(post('/api/instruments/{ticket}/damage/{entry_id}/take-back', { params: { path: { ticket: ticket(), entry_id } }, words: t('undo_damage') }))
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  }
  async function photograph(files: Iterable<File>, { thing, item, label }: { thing: string; item: string; label: string }): Promise<void> {
    for (const file of files) {
      try {
        await submit(post(PHOTOS, { params: { path: { ticket: ticket() }, query: { id: freshId(), item, thing, words: label } }, blob: file, words: file.name }))
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        failure.value = `${file.name}: ${error.message}`
      }
    }
  }
  return {
    view,
    failure,
    look: (body) => submit(post('/api/instruments/{ticket}/damage', { params: { path: { ticket: ticket() } }, body, words: t('damage') })),
    sign: (body) => submit(post('/api/instruments/{ticket}/damage/signed', { params: { path: { ticket: ticket() } }, body, words: t('signed_for') })),
    takeBack,
    photograph,
  }
}
