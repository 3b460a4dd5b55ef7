/** An instrument's trail: what was done and heard, and changes to it, each of which answers with the whole. */
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type SoundView } from '@/api'
import { useBench } from '@/features/bench'
import { freshId } from '@/shared/id'
import type { HeardBody, MoveBody, PostBody, TrialBody, WoodBody } from './bodies'

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
  hear: (body: HeardBody) => Promise<Faults>
  playedBy: (heardId: string, player: string) => Promise<Faults>
  takeBack: (kind: 'heard' | 'recording' | 'post_entry', id: string) => Promise<Faults>
  move: (body: MoveBody) => Promise<Faults>
  halfBack: () => Promise<Faults>
  backTo: (place: number) => Promise<Faults>
  tryOnBridge: (body: TrialBody) => Promise<Faults>
  trialOff: (trial: string) => Promise<Faults>
  woodOff: (body: WoodBody) => Promise<Faults>
  describePost: (body: PostBody) => Promise<Faults>
  record: (sound: Blob, words: string) => Promise<Faults>
  tryBlind: (one: string, other: string) => Promise<Faults>
  chooseBlind: (trial: string, chosen: 'first' | 'second' | 'neither') => Promise<Faults>
}

/** What was wrong, by field; null where it was kept. Under '' what is wrong with the whole. */
export type Faults = Record<string, string> | null

export function useSound(options: UseSoundOptions): UseSoundReturn {
  const bench = useBench()
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
      failure.value = error.message
    }
  }

  /** Everything on the page follows: the trail, the advice on it, and the sheet whose readings an act makes stale. */
  async function change(request: () => Promise<SoundView>): Promise<Faults> {
    const of = options.ticket()
    try {
      await bench.flush()
      const answer = await request()
      sent.what = ''
      if (of !== options.ticket()) return null
      asked += 1
      if (!complaint()) view.value = answer
      failure.value = ''
      await Promise.all([bench.refresh(), complaint() ? load() : null])
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

  const params = () => ({ params: { path: path() } })
  /** The same act sent again after an answer that was lost keeps its id, so that it is written down once. */
  const sent = { what: '', id: '' }
  function id(what: unknown): string {
    const told = JSON.stringify([options.ticket(), what])
    if (sent.what !== told) Object.assign(sent, { what: told, id: freshId() })
    return sent.id
  }
  return {
    view,
    failure,
    load,
    begin: (player) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/session', { ...params(), body: { id: id(['session', player]), player } }))),
    hear: (body) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/heard', { ...params(), body: { ...body, id: id(['heard', body]) } }))),
    playedBy: (heard_id, player) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/heard/{heard_id}/played-by', { params: { path: { ...path(), heard_id } }, body: { id: id(['player', heard_id, player]), player } }))),
    takeBack: (kind, line_id) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/{kind}/{line_id}/take-back', { params: { path: { ...path(), kind, line_id } } }))),
    move: (body) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/moves', { ...params(), body: { ...body, id: id(['move', body]) } }))),
    halfBack: () => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/half-back', { ...params(), body: { id: id(['half', view.value?.now]), now: view.value?.now ?? null } }))),
    backTo: (place) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/back', { ...params(), body: { id: id(['back', view.value?.now, place]), place, now: view.value?.now ?? null } }))),
    tryOnBridge: (body) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/trial', { ...params(), body: { ...body, id: id(['trial', body]) } }))),
    trialOff: (trial) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/trial-off', { ...params(), body: { id: id(['trial off', trial]), trial } }))),
    woodOff: (body) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/wood', { ...params(), body: { ...body, id: id(['wood', body]) } }))),
    describePost: (body) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/post', { ...params(), body: { ...body, id: id(['post', body]) } }))),
    record: (sound, words) =>
      change(() =>
        answerOf(
          api.POST('/api/instruments/{ticket}/sound/recordings', {
            params: { path: path(), query: { id: id(['recording', sound.size, words]), words } },
            headers: { 'Content-Type': sound.type || 'application/octet-stream' },
            body: sound as unknown as string,
            bodySerializer: (body) => body as unknown as BodyInit,
          }),
        ),
      ),
    tryBlind: (one, other) => change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/blind', { ...params(), body: { id: id(['blind', one, other]), one, other, player: '' } }))),
    chooseBlind: (trial_id, chosen) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/sound/blind/{trial_id}/chosen', { params: { path: { ...path(), trial_id } }, body: { chosen } }))),
  }
}
