<script setup lang="ts">
/** A session with a player: where it stands, what is done and heard, what to do next, and the way back. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { up } from '@/shared/format'
import { usePageCommands, usePageTurning } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import AdvicePanel from './AdvicePanel.vue'
import BlindPanel from './BlindPanel.vue'
import BridgeForm from './BridgeForm.vue'
import HeardForm from './HeardForm.vue'
import MoveForm from './MoveForm.vue'
import PostPlan from './PostPlan.vue'
import RecordField from './RecordField.vue'
import TrailList from './TrailList.vue'
import { useSound } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const route = useRoute()
const bench = useBench()
const atBench = useAtBench()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })

const complaint = ref('')
const sound = useSound({ ticket: () => props.ticket, complaint: () => complaint.value })
const { view, failure } = sound
const leftHanded = computed(() => bench.sheet?.instrument.left_handed ?? false)
const family = computed(() => bench.sheet?.instrument.family ?? '')
const mayAct = computed(() => atBench.may('measure') && !bench.sheet?.instrument.handed_over_at)

/** What is typed belongs to one instrument: another one begins with nothing open. */
watch(() => props.ticket, () => {
  show('')
  isNaming.value = false
  isGoingBack.value = false
  complaint.value = ''
})

type Panel = '' | 'heard' | 'move' | 'bridge' | 'advice' | 'record' | 'blind'
const panel = ref<Panel>('')
const moveStart = ref<{ end: string; direction: string } | undefined>()
const player = ref('')
const isNaming = ref(false)
const backTyped = ref('')
const isGoingBack = ref(false)
const note = ref('')
const nameField = ref<HTMLInputElement | null>(null)
const backField = ref<HTMLInputElement | null>(null)
const othersOf = ref('')

/** On wish the player hears without knowing: the trail is hidden while it is rated. */
const isBlind = useStored('heard-blind', false)
const isHidden = computed(() => (isBlind.value && panel.value === 'heard') || (panel.value === 'blind' && (view.value?.blind.some((trial) => trial.trial !== '') ?? false)))

function show(next: Panel): void {
  panel.value = next
  note.value = ''
  moveStart.value = undefined
}
function moveFrom(start: { end: string; direction: string }): void {
  panel.value = 'move'
  moveStart.value = start
}
const gauge = () => void router.push({ name: 'measure', params: { ticket: props.ticket }, query: { course: 'post', place: 'post_setback:0' } })
const best = computed(() => view.value?.places.find((one) => one.is_best) ?? null)
const nowPlace = computed(() => view.value?.places.find((one) => one.is_now) ?? null)

/** A change that is one command: what it did, or why not, is said in the page's own line. */
async function once(request: () => Promise<Record<string, string> | null>, done: string): Promise<void> {
  const wrong = await request()
  note.value = wrong ? (Object.values(wrong)[0] ?? '') : done
}
const halfBack = () => once(sound.halfBack, t('half_back_recorded_listen'))
const wayBackWords = (place: number) => t('recorded_back_to_place_measure', { place })
function backTo(place: number): Promise<void> {
  return once(() => sound.backTo(place), wayBackWords(place))
}
/** The way there, and how well it is known, is read before it is gone and recorded. */
function askBack(place = best.value && !best.value.is_now ? best.value.number : 0): void {
  show('')
  isGoingBack.value = true
  backTyped.value = place ? String(place) : ''
  void nextTick(() => backField.value?.select())
}
const backPlace = computed(() => view.value?.places.find((one) => String(one.number) === backTyped.value.trim()) ?? null)
const backKnown = computed(() =>
  (backPlace.value?.ends ?? []).filter((one) => one.setback !== null).map((one) => t('end_known_to', { end: one.end, known: one.known, mm: up(one.known_to, 1) })).join(', '),
)
async function goBack(): Promise<void> {
  if (!/^\d+$/.test(backTyped.value.trim())) {
    note.value = t('type_the_number_of_a')
    return
  }
  // What was typed stays where it was refused.
  const place = Number(backTyped.value)
  const wrong = await sound.backTo(place)
  note.value = wrong ? (Object.values(wrong)[0] ?? '') : wayBackWords(place)
  isGoingBack.value = wrong !== null
}
function askPlayer(heardId = ''): void {
  othersOf.value = heardId
  player.value = heardId ? '' : (view.value?.session.player ?? '')
  isNaming.value = true
  void nextTick(() => nameField.value?.select())
}
async function name(): Promise<void> {
  const wrong = await (othersOf.value ? sound.playedBy(othersOf.value, player.value) : sound.begin(player.value))
  note.value = wrong ? (Object.values(wrong)[0] ?? '') : ''
  isNaming.value = !!wrong
}
/** The newest of the trail: what was heard after its last act, else the act itself. */
async function undo(): Promise<void> {
  const line = view.value?.lines.at(-1)
  if (!line) return
  const heard = line.heard.at(-1)
  if (heard) await once(() => sound.takeBack('heard', heard.id), t('the_last_rating_is_undone'))
  else if (line.work_id) {
    const done = await bench.submitWorkBack(line.work_id, line.says)
    note.value = done ? t('undone', { says: line.says }) : bench.failure
  }
}
function toBest(): void {
  const place = best.value
  if (!place) note.value = t('no_best_place_yet_the')
  else if (place.is_now) note.value = t('it_stands_at_the_best', { number: place.number })
  else askBack(place.number)
}

/** By turns: what was done is heard, and after that comes the next act. */
const next = computed((): { panel: Panel; words: string } | null => {
  if (!mayAct.value || !view.value || panel.value || isNaming.value || isGoingBack.value) return null
  const last = view.value.lines.at(-1)
  return last && !last.heard.length ? { panel: 'heard', words: t('rate_the_sound') } : { panel: 'move', words: t('move_one_end_of_the') }
})

/** The sheet leads here to say how the post was moved. */
if (route.query.act === 'move') show('move')

const acting = () => mayAct.value && view.value !== null
usePageCommands(() => props.ticket, () => family.value)
usePageTurning(() => props.ticket, () => family.value, () => 'sound')
useCommands([
  { letter: 's', own: true, words: t('rate_the_sound_2'), run: () => show('heard'), possible: acting },
  { letter: 'a', own: true, words: t('move_the_post_2'), run: () => show('move'), possible: acting },
  { letter: 'h', own: true, words: t('move_half_back'), run: () => void halfBack(), possible: acting },
  { letter: 'k', own: true, words: t('back_to_a_place'), run: () => askBack(), possible: acting },
  { letter: 'y', own: true, words: t('back_to_the_best'), run: toBest, possible: acting },
  { letter: 'x', own: true, words: t('measure_the_post_position'), run: gauge, possible: acting },
  { letter: 'w', own: true, words: t('adjust_the_bridge_2'), run: () => show('bridge'), possible: acting },
  { letter: 'd', own: true, words: t('advice_2'), run: () => show('advice') },
  { letter: 'm', own: true, words: t('record_audio_2'), run: () => show('record'), possible: acting },
  { letter: 'c', own: true, words: t('compare_blind_2'), run: () => show('blind'), possible: acting },
  { letter: 'i', own: true, words: t('name_the_player'), run: () => askPlayer(), possible: acting },
  { letter: 'u', words: t('undo'), run: () => void undo(), possible: acting },
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
])
</script>

<template>
  <InstrumentFrame :ticket="ticket" page="sound" :title="view?.session.player ? t('sound_with', { player: view.session.player }) : t('sound')" :label="view ? t('sound') : t('opening')">
    <div v-if="view" class="main">
      <p v-if="!isHidden" class="where">
        <template v-if="view.fallen">{{ t('the_post_lies_inside_it') }}{{ ' ' }}</template><template v-else>{{ t('the_post_stands_at_place') }}</template> <b>{{ view.now }}</b><template v-if="nowPlace?.mean">{{ t('heard_as') }} <b>{{ nowPlace.mean.toFixed(1) }}</b> {{ t('of_5_2') }}</template>.
        <template v-if="best && !best.is_now">{{ t('best_so_far_place') }} <b>{{ best.number }}</b>, {{ best.mean?.toFixed(1) }}.</template>
        <template v-else-if="best">{{ t('it_is_the_best_so') }}</template>
        <template v-if="view.trials_on.length">{{ ' ' }}{{ t('on_the_bridge_2', { join: view.trials_on.map((one) => one.says).join(', ') }) }}</template>
      </p>
      <p v-if="note" class="note" role="status">{{ note }}</p>
      <p v-if="view.stop" class="note" role="note">{{ view.stop }}</p>
      <p v-if="isHidden" class="hidden">{{ t('what_was_done_and_how') }}</p>
      <template v-else>
        <PostPlan :view="view" :left-handed="leftHanded" :may-act="mayAct" :width="408" :height="286" @back="backTo" />
        <h2>{{ t('adjustment_history') }}</h2>
        <TrailList :view="view" :may-act="mayAct" :visit-id="bench.sheet?.instrument.visit_id ?? ''" :left-handed="leftHanded" @back="askBack" @take-back="(kind, id) => void once(() => sound.takeBack(kind, id), t('undone_2'))" @played-by="askPlayer" />
      </template>
    </div>
    <p v-else class="main" role="status">{{ failure || t('loading') }}</p>
    <template v-if="view" #todo>
      <form v-if="isNaming" @submit.prevent="name">
        <label>{{ othersOf ? t('who_played_then') : t('who_plays') }}<input ref="nameField" v-model="player" class="own" maxlength="80" autocomplete="off" /></label>
        <div class="ways"><v-btn @click="isNaming = false">{{ t('cancel') }}</v-btn><v-btn type="submit" variant="flat">{{ othersOf ? t('change_player') : t('begin_with_this_player') }}</v-btn></div>
      </form>
      <form v-if="isGoingBack" :aria-label="t('back_to_a_place_2')" @submit.prevent="goBack">
        <label>{{ t('back_to_place_2') }}<input ref="backField" v-model="backTyped" class="own" inputmode="numeric" maxlength="6" autocomplete="off" /></label>
        <template v-if="backPlace && !backPlace.is_now">
          <p v-if="backPlace.way_back" role="status"><b>{{ t('the_way_back') }}</b> {{ backPlace.way_back }}.<template v-if="backKnown">{{ ' ' }}{{ backKnown }}.</template></p>
          <p v-else-if="!view.may_go_back" class="wait">{{ t('the_way_back_2', { gauged: t('this_place_was_never_gauged') }) }}</p>
        </template>
        <p v-if="view.may_go_back" class="wait">{{ view.may_go_back.charAt(0).toUpperCase() }}{{ view.may_go_back.slice(1) }}.</p>
        <div class="ways"><v-btn @click="isGoingBack = false">{{ t('cancel') }}</v-btn><v-btn type="submit" variant="flat">{{ t('record_move_back') }}</v-btn></div>
      </form>
      <label v-if="panel === 'heard'" class="choice"><input v-model="isBlind" type="checkbox" />{{ t('hide_earlier_results') }}</label>
      <HeardForm v-if="panel === 'heard'" :view="view" :left-handed="leftHanded" :send="sound.hear" @done="show('')" />
      <MoveForm v-else-if="panel === 'move'" :key="JSON.stringify(moveStart)" :view="view" :send="sound.move" :start="moveStart" @done="show('')" />
      <BridgeForm v-else-if="panel === 'bridge'" :view="view" :try-on-bridge="sound.tryOnBridge" :trial-off="sound.trialOff" :wood-off="sound.woodOff" @done="show('')" />
      <AdvicePanel v-else-if="panel === 'advice'" v-model="complaint" :view="view" :may-act="mayAct" @move="moveFrom" @done="show('')" />
      <RecordField v-else-if="panel === 'record'" :send="sound.record" @done="show('')" />
      <BlindPanel v-else-if="panel === 'blind'" :view="view" :try-blind="sound.tryBlind" :choose="sound.chooseBlind" :give-up="sound.giveUpBlind" @done="show('')" />
      <template v-else-if="!isNaming && !isGoingBack">
        <h2>{{ t('one_act_then_listen') }}</h2>
        <template v-if="mayAct">
          <p v-if="!view.session.begun" class="quiet">{{ t('no_player_named') }} <v-btn size="small" @click="askPlayer()">{{ t('name_the_player_2') }}</v-btn></p>
          <div class="acts" role="group" :aria-label="t('move')">
            <h3>{{ t('move') }}</h3>
            <v-btn v-if="next?.panel !== 'move'" @click="show('move')">{{ t('move_one_end_of_the') }}</v-btn>
            <v-btn :disabled="view.may_halve !== ''" @click="halfBack">{{ t('move_half_back_2') }}</v-btn>
            <p class="quiet">{{ view.may_halve ? t('half_back', { may_halve: view.may_halve }) : t('that_is', { half_words: view.half_words }) }}</p>
            <v-btn :disabled="view.may_go_back !== '' || !best || best.is_now" @click="toBest">{{ t('back_to_the_best_2', { number: best && !best.is_now ? t('place_3', { number: best.number }) : '' }) }}</v-btn>
            <p v-if="view.may_go_back" class="quiet">{{ view.may_go_back.charAt(0).toUpperCase() }}{{ view.may_go_back.slice(1) }}.</p>
            <v-btn @click="gauge">{{ t('measure_post_position') }}</v-btn>
            <v-btn @click="show('bridge')">{{ t('adjust_the_bridge') }}</v-btn>
          </div>
          <div class="acts" role="group" :aria-label="t('listen')">
            <h3>{{ t('listen') }}</h3>
            <v-btn v-if="next?.panel !== 'heard'" @click="show('heard')">{{ t('rate_the_sound') }}</v-btn>
            <v-btn @click="show('record')">{{ t('record_audio') }}</v-btn>
            <v-btn @click="show('blind')">{{ t('compare_blind') }}</v-btn>
            <v-btn @click="show('advice')">{{ t('advice') }}</v-btn>
          </div>
        </template>
        <template v-else>
          <p class="quiet">{{ t('entries_are_made_by_a') }}</p>
          <v-btn @click="show('advice')">{{ t('advice') }}</v-btn>
        </template>
      </template>
      <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    </template>
    <template #main>
      <v-btn v-if="next" variant="flat" block class="next" @click="show(next.panel)">{{ next.words }}</v-btn>
    </template>
  </InstrumentFrame>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.main {
  padding: 0 18px 18px;
}
h3 {
  margin: 10px 0 0;
  font-size: var(--type-text);
}
.next {
  min-height: var(--main-button);
}
.main h2 {
  margin: 16px 0 6px;
}
.where {
  margin: 0 0 8px;
  font-size: var(--type-label);
}
.note,
.wait {
  margin: 0 0 8px;
  padding: 6px 12px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
}
.hidden {
  padding: 90px 20px;
  font-size: var(--type-label);
  text-align: center;
}
.acts {
  display: grid;
  gap: 8px;
}
.acts p {
  margin: -4px 0 4px;
}
@media (max-width: 1000px) and (min-width: 560px) {
  .acts {
    grid-template-columns: 1fr 1fr;
    align-items: center;
  }
  .acts p {
    margin: 0;
  }
}
</style>
