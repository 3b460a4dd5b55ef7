/** An instrument's trail: what was done and heard, and changes to it, each of which answers with the whole. */
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type SoundView } from '@/api'
import { useBench } from '@/features/bench'
import { post, useOutbox, type Act } from '@/outbox'
import { freshId } from '@/shared/id'
import type { HeardBody, MoveBody, PostBody, TrialBody, WoodBody } from './bodies'
import { t } from '@/words/sound'

export interface UseSoundOptions {
  ticket: () => string
  /** What advice is wanted on, empty for none. */
  complaint?: () => string
}

export interface UseSoundReturn {
  view: Ref<SoundView | null>
  /** Why the page, or the last change, came to nothing. */
  failure: Ref<string>
  load: () => Promise<void>
  begin: (player: string) => Promise<Faults>
  hear: (id: string, body: HeardBody) => Promise<void>
  playedBy: (heardId: string, player: string) => Promise<Faults>
  takeBack: (kind: 'heard' | 'recording' | 'post_entry', id: string) => Promise<Faults>
  move: (id: string, body: MoveBody) => Promise<void>
  halfBack: () => Promise<Faults>
  backTo: (place: number) => Promise<Faults>
  tryOnBridge: (id: string, body: TrialBody) => Promise<void>
  trialOff: (trial: string) => Promise<Faults>
  woodOff: (id: string, body: WoodBody) => Promise<void>
  describePost: (id: string, body: PostBody) => Promise<void>
  record: (sound: Blob, words: string) => Promise<Faults>
  tryBlind: (one: string, other: string, trials: number) => Promise<Faults>
  giveUpBlind: (series: string) => Promise<Faults>
  chooseBlind: (trial: string, chosen: 'first' | 'second' | 'neither') => Promise<Faults>
}

/** What was wrong, by field; null where it was kept. Under '' what is wrong with the whole. */
export type Faults = Record<string, string> | null

export function useSound(options: UseSoundOptions): UseSoundReturn {
  const bench = useBench()
  const outbox = useOutbox()
  const view = ref<SoundView | null>(null)
  const failure = ref('')
  let asked = 0

  const path = () => ({ ticket: options.ticket() })
  const complaint = () => options.complaint?.() ?? ''

  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/sound', { params: { path: path(), query: { complaint: complaint() } } }))
      if (mine !== asked) return
      view.value = found
      failure.value = ''
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) failure.value = error.message
    }
  }

  /**
   * Everything on the page follows: the trail, the advice on it, and the sheet whose readings an act makes stale. Throws
   * Refused, for a form, which says so itself.
   */
  async function submit(act: Act): Promise<void> {
    const of = options.ticket()
    const done = await outbox.submit(act, { visit: bench.ticket === of ? (bench.sheet?.instrument.visit_id ?? '') : '' })
    if (of !== options.ticket()) return
    failure.value = ''
    if (!done.sent) return
    asked += 1
    if (!complaint()) view.value = done.answer as SoundView
    await Promise.all([bench.refresh(), complaint() ? load() : null])
  }
  async function change(act: Act): Promise<Faults> {
    try {
      await submit(act)
      return null
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
      return Object.keys(error.fields).length ? error.fields : { '': error.message }
    }
  }

  // Another instrument's trail never stands under this one's ticket.
  watch(options.ticket, () => (view.value = null))
  watch([options.ticket, complaint], () => void load(), { immediate: true })
  watch(() => bench.sheet, () => void load())

  const at = () => ({ params: { path: path() } })
  /** The place where the page has the post standing. */
  const standing = () => view.value?.now ?? 0
  /** An act that writes down a work carries its id. */
  function work(id = freshId()): { body: { id: string }; work: string } {
    return { body: { id }, work: id }
  }
  return {
    view,
    failure,
    load,
    begin: (player) => change(post('/api/instruments/{ticket}/sound/session', { ...at(), body: { id: freshId(), player }, words: t('plays', { player }) })),
    hear: (id, body) => submit(post('/api/instruments/{ticket}/sound/heard', { ...at(), body: { ...body, id }, words: t('how_it_sounds') })),
    playedBy: (heard_id, player) =>
      change(post('/api/instruments/{ticket}/sound/heard/{heard_id}/played-by', { params: { path: { ...path(), heard_id } }, body: { id: freshId(), player }, words: t('played_by', { player }) })),
    takeBack: (kind, line_id) =>
      change(post('/api/instruments/{ticket}/sound/{kind}/{line_id}/take-back', { params: { path: { ...path(), kind, line_id } }, words: t('undo_a_line_of_the') })),
    move: (id, body) => {
      const made = work(id)
      return submit(post('/api/instruments/{ticket}/sound/moves', { ...at(), ...made, body: { ...body, ...made.body }, words: t('post_moved') }))
    },
    halfBack: () => {
      const made = work()
      return change(post('/api/instruments/{ticket}/sound/half-back', { ...at(), ...made, body: { ...made.body, now: standing() }, words: t('post_half_back') }))
    },
    backTo: (place) => {
      const made = work()
      return change(post('/api/instruments/{ticket}/sound/back', { ...at(), ...made, body: { ...made.body, place, now: standing() }, words: t('post_back_to_an_earlier') }))
    },
    tryOnBridge: (id, body) => {
      const made = work(id)
      return submit(post('/api/instruments/{ticket}/sound/trial', { ...at(), ...made, body: { ...body, ...made.body }, words: t('bridge_trial') }))
    },
    trialOff: (trial) => {
      const made = work()
      return change(post('/api/instruments/{ticket}/sound/trial-off', { ...at(), ...made, body: { ...made.body, trial }, words: t('bridge_trial_off') }))
    },
    woodOff: (id, body) => {
      const made = work(id)
      return submit(post('/api/instruments/{ticket}/sound/wood', { ...at(), ...made, body: { ...body, ...made.body }, words: t('wood_off_the_bridge') }))
    },
    describePost: (id, body) => submit(post('/api/instruments/{ticket}/sound/post', { ...at(), body: { ...body, id }, words: t('the_post_described') })),
    record: (sound, words) =>
      change(post('/api/instruments/{ticket}/sound/recordings', { params: { path: path(), query: { id: freshId(), words } }, blob: sound, words: t('recording', { words: words ? `: ${words}` : '' }) })),
    tryBlind: (one, other, trials) => change(post('/api/instruments/{ticket}/sound/blind', { ...at(), body: { id: freshId(), trials, one, other, player: '' }, words: t('blind_comparison') })),
    giveUpBlind: (series_id) => change(post('/api/instruments/{ticket}/sound/blind/{series_id}/give-up', { params: { path: { ...path(), series_id } }, words: t('blind_comparison_given_up') })),
    chooseBlind: (trial_id, chosen) =>
      change(post('/api/instruments/{ticket}/sound/blind/{trial_id}/chosen', { params: { path: { ...path(), trial_id } }, body: { chosen }, words: t('blind_comparison_chosen') })),
  }
}
