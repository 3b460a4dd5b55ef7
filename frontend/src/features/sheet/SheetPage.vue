<script setup lang="ts">
/** The bench sheet of one instrument: course, drawing, card and word. */
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { AskedWork } from '@/features/works'
import { AtRest, BenchCard, InHand, keyOf, useBench, useEntry } from '@/features/bench'
import { StepDialog } from '@/features/course'
import { EndView, OtherViews, VIEWS, type ViewName } from '@/features/drawing'
import { InstrumentFrame } from '@/features/frame'
import { MainAct, WordPanel } from '@/features/word'
import { useHouse } from '@/features/rail'
import type { Stop } from '@/api'
import { useCommands } from '@/shared/commands'
import { mm } from '@/shared/format'
import { usePageCommands } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import TakeOff from './TakeOff.vue'
import { usePanel } from './usePanel'
import { useRecording } from './useRecording'
import { t } from '@/words/sheet'

/** What opens over the sheet comes after the sheet. */
const LogDialog = defineAsyncComponent(() => import('@/features/log').then((feature) => feature.LogDialog))
const ParticularsDialog = defineAsyncComponent(() => import('@/features/particulars').then((feature) => feature.ParticularsDialog))
const StringsDialog = defineAsyncComponent(() => import('@/features/strings').then((feature) => feature.StringsDialog))
const SaidDialog = defineAsyncComponent(() => import('@/features/works').then((feature) => feature.SaidDialog))
const WorkDialog = defineAsyncComponent(() => import('@/features/works').then((feature) => feature.WorkDialog))

const props = defineProps<{ ticket: string }>()

const route = useRoute()
const router = useRouter()
const bench = useBench()
const house = useHouse()
const atBench = useAtBench()
const entry = useEntry()
const sheet = computed(() => bench.sheet)
const why = ref<string | null>(null)
const view = useStored<ViewName>('view', 'end')
function otherView(): void {
  const names = Object.keys(VIEWS) as ViewName[]
  view.value = names[(names.indexOf(view.value) + 1) % names.length] ?? 'end'
}
const stringsOpen = ref(false)
const stringsChange = ref(false)
/** change : to say that they were changed just now. */
function openStrings(change: boolean): void {
  stringsChange.value = change
  stringsOpen.value = true
}
const logOpen = ref(false)
const workOpen = ref(false)
const saidOpen = ref(false)
const saidOf = ref<AskedWork>('nut_filed')
function askOf(work: AskedWork): void {
  saidOf.value = work
  saidOpen.value = true
}
const particularsOpen = ref(false)
const stepOpen = ref(false)
const stepKey = ref('')
const wordPanel = ref<InstanceType<typeof WordPanel> | null>(null)
const { mayRecord, cutCrown, recordSaid, recordOther, record, takeBackHandOver } = useRecording(
  entry,
  () => (why.value = null),
  openStrings,
  askOf,
)
const { panel, width, drawingHeight, isNarrow, margins, geometry } = usePanel(sheet)
const step = computed(() => sheet.value?.course.find((stop) => stop.key === stepKey.value) ?? null)
/** Whatever was said of a step or a question may have moved the tag on the rail. */
watch(
  () => sheet.value?.instruction,
  (now, before) => {
    if (before && now && (now.title !== before.title || now.until !== before.until)) void house.load()
  },
)

watch(
  () => props.ticket,
  (ticket) => {
    why.value = null
    void bench.open(ticket)
  },
  { immediate: true },
)

/* Other benches are told of as they write; where that does not come through, look again now and then. */
const REFRESH_EVERY_MS = 30_000
const timer = setInterval(() => {
  if (!document.hidden && !bench.waiting.length) void bench.refresh()
}, REFRESH_EVERY_MS)
const onFocus = () => void bench.refresh()
window.addEventListener('focus', onFocus)
onBeforeUnmount(() => {
  clearInterval(timer)
  window.removeEventListener('focus', onFocus)
})

const to = (name: 'look' | 'measure' | 'recipe' | 'plan' | 'leave' | 'history') => void router.push({ name, params: { ticket: props.ticket } })
/** What is to be read stands on the card, or on the page of measuring. */
function measureAt(key: string): void {
  if (sheet.value?.cells.some((cell) => cell.on_card && keyOf(cell) === key)) entry.goTo(key)
  else void router.push({ name: 'measure', params: { ticket: props.ticket }, query: { place: key } })
}
function openStop(stop: Stop): void {
  if (stop.key === 'look') to('look')
  else if (stop.key.startsWith('planned:')) to('plan')
  else if (stop.is_question) wordPanel.value?.decide(stop.key)
  else openStep(stop.key)
}
function openStep(key: string): void {
  stepKey.value = key
  stepOpen.value = true
}
/** Another page leads here to open a step. */
watch([() => route.query.step, sheet], ([key, there]) => {
  const stop = there?.course.find((one) => one.key === key)
  if (!stop || there?.instrument.ticket !== props.ticket) return
  void router.replace({ query: {} }).then(() => openStop(stop))
}, { immediate: true })
/** The step that the course stands at, or waits for. */
function openNext(): void {
  const next = sheet.value?.course.find((stop) => stop.key === sheet.value?.instruction.stop)
  if (next) openStop(next)
}

watch([why, sheet], ([name]) => {
  if (name !== null) void bench.loadWhys()
})

/** The why of what is in hand, or of the first cut that is there. */
function openWhy(name?: string): void {
  const cuts = sheet.value?.cut.strings.findIndex((s) => s.wood !== null) ?? -1
  const inHand = entry.cell.value
  const position = inHand?.position ?? (cuts >= 0 ? cuts : 0)
  const wood = `wood:${position}`
  why.value = name ?? ((sheet.value?.cut.strings[position]?.wood ?? null) === null ? entry.inHand.value : wood)
}

usePageCommands(() => props.ticket, () => sheet.value?.instrument.family ?? '')
useCommands([
  { letter: 's', words: t('strings'), run: () => openStrings(false), possible: () => sheet.value !== null },
  { letter: 'h', words: t('recipe_and_schools'), run: () => to('recipe'), possible: () => sheet.value !== null },
  { letter: 'w', words: t('why'), run: () => openWhy(), possible: () => sheet.value !== null },
  { letter: 'c', words: t('crown_cut'), run: () => void cutCrown(), possible: () => atBench.may('measure') && mayRecord('crown_cut') },
  { letter: 'j', words: t('nut_filed'), run: () => askOf('nut_filed'), possible: () => atBench.may('measure') && sheet.value !== null },
  { letter: 'k', words: t('work_done'), run: () => (workOpen.value = true), possible: () => atBench.may('measure') && sheet.value !== null },
  { letter: 'd', words: t('decide'), run: () => wordPanel.value?.decide(), possible: () => atBench.may('sign_off') && !!sheet.value?.questions.length },
  { letter: 't', words: t('open_this_step'), run: openNext, possible: () => !!sheet.value?.instruction.stop },
  { letter: 'i', words: t('inspection'), run: () => to('look'), possible: () => sheet.value !== null },
  { letter: '-', words: t('plan_and_estimate'), run: () => to('plan'), possible: () => sheet.value !== null },
  { letter: '[', words: t('history'), run: () => to('history'), possible: () => sheet.value !== null },
  { letter: 'a', words: t('measure'), run: () => to('measure'), possible: () => sheet.value !== null },
  { letter: 'x', own: true, words: t('another_view'), run: otherView, possible: () => sheet.value !== null },
  { letter: 'm', own: true, words: t('damage_map'), run: () => void router.push({ name: 'damage', params: { ticket: props.ticket } }), possible: () => sheet.value !== null },
  { letter: 'i', own: true, words: t('particulars'), run: () => (particularsOpen.value = true), possible: () => atBench.may('arrive') && sheet.value !== null },
  { letter: 'm', words: t('use_the_suggested_value'), run: () => entry.takeSuggested(), possible: () => (entry.cell.value?.doubt?.suggested ?? null) !== null },
  { letter: 'y', words: t('hand_over_3'), run: () => to('leave'), possible: () => sheet.value !== null },
  { letter: 'o', words: t('log'), run: () => (logOpen.value = true), possible: () => sheet.value !== null },
  { letter: 'u', words: t('undo'), run: () => void bench.undo(), possible: () => atBench.may('measure') && (sheet.value?.undoable ?? null) !== null },
  { letter: '/', words: t('redo'), run: () => void bench.redo(), possible: () => bench.redoable !== null },
])

/** A bass may have them; any other where they were read. */
const hasWheels = computed(() => sheet.value?.instrument.family === 'bass' || (sheet.value?.cells ?? []).some((cell) => cell.measure === 'adjuster_spread' && cell.value !== null))
const bowRoom = computed(() =>
  (sheet.value?.drawing?.strings ?? []).filter((s) => s.bow_separation !== null).map((s) => `${s.name} ${s.bow_separation?.toFixed(1)}°`),
)
const refused = computed(() => {
  const cell = entry.cell.value
  return cell ? (bench.refusals[bench.placeOf(cell)] ?? null) : null
})
const refusedElsewhere = computed(() =>
  (sheet.value?.cells ?? []).filter((cell) => bench.refusals[bench.placeOf(cell)] && cell !== entry.cell.value),
)
</script>

<template>
  <InstrumentFrame v-if="sheet" :ticket="ticket" page="sheet" :title="t('bridge')" :label="t('bench_sheet')" @stop="openStop">
    <template #head>
      <div class="views" role="group" :aria-label="t('view')">
        <button v-for="(words, name) in VIEWS" :key="name" type="button" class="plain-button" :aria-pressed="view === name" @click="view = name">{{ words }}</button>
      </div>
    </template>
      <div ref="panel" class="panel">
        <TakeOff v-if="view === 'end'" :cut="sheet.cut" :amounts="sheet.instruction.amounts" :geometry="geometry" :narrow="isNarrow" @why="why = $event" />
        <div class="drawing" :style="{ height: `${drawingHeight}px` }">
          <OtherViews v-if="view !== 'end'" :view="view" :sheet="sheet" :width="width" :height="drawingHeight" />
          <EndView
            v-else-if="sheet.drawing"
            :family="sheet.instrument.family"
            :is-of-crown="sheet.cut.role !== 'nut'"
            :drawing="sheet.drawing"
            :geometry="geometry"
            :width="width"
            :height="drawingHeight"
            :room="width - margins.left - margins.right"
            :left-handed="sheet.instrument.left_handed"
          />
          <div v-else class="no-drawing">
            <p>{{ sheet.strings ? sheet.instruction.says[0] : t('no_strings_named_slots_and') }}</p>
            <v-btn v-if="!sheet.strings" @click="openStrings(false)">{{ t('choose_strings') }}</v-btn>
          </div>
          <div v-if="view === 'end' && sheet.drawing && !isNarrow" class="notes">
            <button type="button" class="plain-button" @click="why = 'crown_radius'">{{ t('crown_radius') }}<br /><b>{{ mm(sheet.drawing.crown_radius, 1) }}</b></button>
            <button type="button" class="plain-button" @click="why = 'bow'">{{ t('bow_clearance') }}<br /><b v-for="room in bowRoom" :key="room" class="line">{{ room }}</b></button>
          </div>
        </div>
        <BenchCard
          :sheet="sheet"
          :geometry="geometry"
          :in-hand="entry.inHand.value"
          :narrow="isNarrow"
          :stop="entry.stopWords.value"
          :held="entry.held.value"
          @held-here="entry.takeHeldHere()"
          @pick="entry.goTo"
          @draft="entry.setDraft"
          @key="entry.onKey"
          @keep="entry.keepStopped()"
          @suggested="entry.takeSuggested()"
          @why="why = $event"
        />
      </div>
      <AtRest v-if="sheet.rests && !entry.cell.value" :rests="sheet.rests" />
      <InHand
        v-if="entry.cell.value"
        :cell="entry.cell.value"
        :draft="entry.draft.value"
        :stopped="entry.stop.value !== null"
        :held="entry.held.value"
        :refused="refused"
        @enter-held="entry.enterHeld()"
        @discard-held="entry.discardHeld()"
        @take="entry.takeNow(false)"
        @keep="entry.takeNow(false)"
        @suggested="entry.takeSuggested()"
        @tool="entry.nextTool()"
        @why="openWhy(entry.inHand.value)"
      />
      <p v-for="cell in refusedElsewhere" :key="cell.name" class="elsewhere" role="alert">
        {{ bench.refusals[bench.placeOf(cell)] }}
      </p>
    <template #todo>
    <WordPanel
      ref="wordPanel"
      :sheet="sheet"
      :opened="why"
      :failure="bench.failure || bench.notice"
      :may-work="atBench.may('measure')"
      @close-why="why = null"
      @record="record"
      @strings="openStrings(false)"
      @recipe="to('recipe')"
      @undo="bench.undo()"
      @take-back="takeBackHandOver"
    />
    </template>
    <template #main>
      <MainAct
        :sheet="sheet"
        :in-hand="entry.inHand.value"
        @record="record"
        @hand-over="to('leave')"
        @strings="openStrings(false)"
        @step="$event === 'look' ? to('look') : openStep($event)"
        @decide="wordPanel?.decide($event)"
        @measure="measureAt"
      />
    </template>
  </InstrumentFrame>
  <template v-if="sheet">
    <StringsDialog v-model="stringsOpen" :sheet="sheet" :change="stringsChange" />
    <WorkDialog v-model="workOpen" :works="house.choices?.works ?? []" :has-wheels="hasWheels" :ticket="sheet.instrument.ticket" :record="recordOther" />
    <SaidDialog v-model="saidOpen" :sheet="sheet" :work="saidOf" :record="recordSaid" />
    <StepDialog v-model="stepOpen" :stop="step" />
    <ParticularsDialog v-model="particularsOpen" :sheet="sheet" :kinds="house.choices?.kinds ?? []" @changed="house.load()" />
    <LogDialog v-model="logOpen" :ticket="sheet.instrument.ticket" />
  </template>
  <section v-if="!sheet && bench.failure" class="missing" role="alert">
    <h1>{{ bench.failure }}</h1>
    <p v-if="bench.isAway">{{ t('trying_again') }}</p>
    <router-link v-else to="/">{{ t('back_to_the_house') }}</router-link>
  </section>
  <p v-else-if="!sheet" class="missing">{{ t('loading', { ticket }) }}</p>
</template>

<style scoped>
.views {
  display: flex;
  gap: 2px;
}
.views button {
  min-height: var(--hit);
  padding: 0 7px;
}
.views [aria-pressed='true'] {
  font-weight: 700;
  box-shadow: inset 0 -3px 0 var(--ink);
}
.panel {
  position: relative;
}
.drawing {
  position: relative;
}
.no-drawing {
  height: 100%;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 12px;
  text-align: center;
  font-size: var(--type-label);
}
.notes {
  position: absolute;
  left: 16px;
  top: 26px;
  display: grid;
  gap: 12px;
}
.notes button {
  min-height: var(--hit);
  line-height: 1.25;
}
.notes b {
  font-size: var(--type-target);
}
.notes .line {
  display: block;
}
.elsewhere {
  margin: 0;
  padding: 6px 16px;
  color: var(--error);
  font-weight: 700;
}
.missing {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 640px) {
  .no-drawing {
    padding: 0 16px;
  }
}
</style>
