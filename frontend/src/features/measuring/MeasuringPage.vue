<script setup lang="ts">
/** A measuring, caliper in hand: every place of its course, the one in hand with where and how it is taken. */
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Cell } from '@/api'
import { CardCell, decimalsOf, InHand, keyOf, useBench, useBeside, useEntry } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { usePageCommands } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import { inRow, inTwoColumns } from './columns'
import { courseWith, COURSES, placesOf, progress, SPACING_FORMS, SPACING_WORDS, type CourseName } from './courses'
import HandPanel from './HandPanel.vue'
import PaperDialog from './PaperDialog.vue'
import { neighbourIn, seen } from './places'
import { useCourse } from './useCourse'
import { t } from '@/words/measuring'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const route = useRoute()
const bench = useBench()
const atBench = useAtBench()
const { course, form } = useCourse()

const { chosen: besideKey, choices: besideChoices, besideOf, next: nextBeside } = useBeside()
const cells = computed(() => placesOf(bench.sheet?.cells ?? [], course.value, form.value))
const columns = computed(() => inTwoColumns(cells.value))
const entry = useEntry({ cells, neighbour: (key, direction) => neighbourIn(cells.value, key, direction) })
const inHand = computed(() => entry.cell.value)
const isWhyOpen = ref(false)
/** Behind what is in hand: how well it is known, what is wanted and who says so. How it is taken stands above already. */
const whyInHand = computed(() => {
  const why = isWhyOpen.value && inHand.value ? bench.whys[keyOf(inHand.value)] : undefined
  return why ? [...why.lines.slice(1), why.follows].filter(Boolean) : []
})

watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
watch([isWhyOpen, () => bench.sheet], ([isOpen]) => {
  if (isOpen) void bench.loadWhys()
})
/** A page that lacks a reading leads to its place. */
const stopAsking = watch(
  () => bench.sheet,
  (sheet) => {
    if (!sheet || sheet.instrument.ticket !== props.ticket) return
    const place = String(route.query.place ?? '')
    if (place) {
      const wanted = Object.keys(COURSES).find((name) => name === route.query.course) as CourseName | undefined
      course.value = courseWith(sheet.cells, keyOf, place, wanted ?? course.value, form.value) ?? course.value
      void nextTick(() => entry.goTo(place))
    }
    void nextTick(() => stopAsking())
  },
  { immediate: true },
)
/* Another course begins at its first place that is still open. */
watch([course, form], () => {
  const first = cells.value.find((cell) => cell.state !== 'current') ?? cells.value[0]
  if (first && !cells.value.some((cell) => keyOf(cell) === entry.inHand.value)) entry.goTo(keyOf(first))
})

function waitingOf(cell: Cell): string | null {
  return bench.waitingHere.filter(({ body }) => body.measure === cell.measure && (body.position ?? null) === cell.position).at(-1)?.body.typed ?? null
}
function refusedAt(cell: Cell | null): string | null {
  return cell ? (bench.refusals[bench.placeOf(cell)] ?? null) : null
}
function toSheet(): void {
  void router.push({ name: 'bench', params: { ticket: props.ticket } })
}
function skip(): void {
  const at = cells.value.findIndex((cell) => keyOf(cell) === entry.inHand.value)
  const next = cells.value.slice(at + 1).find((cell) => cell.state !== 'current') ?? cells.value.find((cell) => cell.state !== 'current')
  if (next) entry.goTo(keyOf(next))
}

/** What a device sent is taken as its reading. */
function sent(typed: string, tool: string, simulated: boolean): void {
  if (!inHand.value) return
  atBench.chooseTool(inHand.value.measure, tool)
  entry.setDraft(typed)
  entry.takeNow(false, simulated)
}

const paperOpen = ref(false)
onBeforeUnmount(() => (bench.paperAt = ''))
const writtenAt = computed(() => (bench.paperAt ? new Date(bench.paperAt).toLocaleString('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' }) : ''))
function fromPaper(at: string): void {
  bench.paperAt = at
  skip()
}
const toPaper = (name: 'working-sheet' | 'blank') => void router.push({ name, params: { ticket: props.ticket } })

usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: toSheet },
  { letter: 'a', own: true, words: t('bridge_only'), run: () => (course.value = 'bridge') },
  { letter: 'x', own: true, words: t('full'), run: () => (course.value = 'full') },
  { letter: 'j', own: true, words: t('recheck'), run: () => (course.value = 'recheck') },
  { letter: 'y', own: true, words: t('load'), run: () => (course.value = 'load') },
  { letter: 't', own: true, words: t('spacing_as'), run: () => (form.value = SPACING_FORMS[(SPACING_FORMS.indexOf(form.value) + 1) % SPACING_FORMS.length] ?? 'spread') },
  { letter: 'h', own: true, words: t('compare_with'), run: nextBeside },
  { letter: 'i', own: true, words: t('show_inches'), run: () => (atBench.inches = !atBench.inches) },
  { letter: 'c', own: true, words: t('enter_a_paper_card'), run: () => (bench.paperAt ? (bench.paperAt = '') : (paperOpen.value = true)), possible: () => atBench.may('measure') },
  { letter: 'd', own: true, words: t('blank_card'), run: () => toPaper('blank') },
  { letter: 'o', own: true, words: t('print_the_sheet'), run: () => toPaper('working-sheet') },
  { letter: 's', own: true, words: t('skip'), run: skip },
  { letter: 'm', words: t('use_the_suggested_value'), run: () => entry.takeSuggested(), possible: () => (inHand.value?.doubt?.suggested ?? null) !== null },
  { letter: 'w', words: t('why'), run: () => (isWhyOpen.value = !isWhyOpen.value), possible: () => inHand.value !== null },
  { letter: 'u', words: t('undo'), run: () => void bench.undo(), possible: () => atBench.may('measure') && (bench.sheet?.undoable ?? null) !== null },
  { letter: '/', words: t('redo'), run: () => void bench.redo(), possible: () => bench.redoable !== null },
])
</script>

<template>
  <p v-if="bench.failure && !bench.sheet" class="absent" role="alert">{{ bench.failure }}</p>
  <InstrumentFrame v-else-if="bench.sheet" :ticket="ticket" page="measure" :title="t('measuring')" :label="t('measuring')">
    <template #head>
      <b role="status">{{ progress(cells) }}</b>
    </template>
    <div class="manner">
      <label>{{ t('course') }} <select v-model="course" :aria-label="t('course')"><option v-for="(words, name) in COURSES" :key="name" :value="name">{{ words }}</option></select></label>
      <label>{{ t('spacing_as') }} <select v-model="form"><option v-for="(words, name) in SPACING_WORDS" :key="name" :value="name">{{ words }}</option></select></label>
      <label>{{ t('compare_with') }} <select v-model="besideKey"><option v-for="one in besideChoices" :key="one.key" :value="one.key">{{ one.words }}</option></select></label>
      <button v-if="atBench.may('measure') && !bench.paperAt" type="button" class="plain-button link" @click="paperOpen = true">{{ t('enter_a_paper_card_2') }}</button>
      <router-link class="link" :to="{ name: 'blank', params: { ticket } }">{{ t('blank_card_2') }}</router-link>
      <router-link class="link" :to="{ name: 'working-sheet', params: { ticket } }">{{ t('print') }}</router-link>
    </div>
    <p v-if="writtenAt" class="written" role="status">
      {{ t('these_go_in_as_written', { written_at: writtenAt }) }}
      <v-btn size="small" @click="bench.paperAt = ''">{{ t('finish_measuring') }}</v-btn>
    </p>
    <p v-if="bench.failure" class="fault" role="alert">{{ bench.failure }}</p>
    <div class="card">
      <div v-for="(parts, c) in columns" :key="c" class="column">
        <section v-for="one in parts" :key="one.part" :aria-label="one.goesOn ? t('goes_on', { part: one.part }) : one.part">
          <h2 :class="{ 'goes-on': one.goesOn }">{{ one.goesOn ? t('goes_on', { part: one.part }) : one.part }}</h2>
          <div v-for="line in one.lines" :key="line.measure" class="line" :class="{ single: line.cells.length === 1 }" role="group" :aria-label="line.label">
            <span class="label">{{ line.label }}</span>
            <div class="places" :style="{ '--beside': inRow(line.cells) }">
              <div v-for="cell in seen(line.cells, bench.sheet)" :key="keyOf(cell)" class="place">
                <span v-if="cell.place" class="name" aria-hidden="true">{{ cell.place }}</span>
                <CardCell
                  :cell="cell"
                  :in-hand="keyOf(cell) === entry.inHand.value"
                  :draft="bench.drafts[bench.placeOf(cell)] ?? ''"
                  :waiting="waitingOf(cell)"
                  :refused="refusedAt(cell)"
                  :places="decimalsOf(cell)"
                  :beside="besideOf(cell)"
                  :stop="entry.stopWords.value"
                  :held="entry.held.value"
                  @held-here="entry.takeHeldHere()"
                  @pick="entry.goTo(keyOf(cell))"
                  @draft="entry.setDraft"
                  @key="entry.onKey"
                  @keep="entry.keepStopped()"
                  @suggested="entry.takeSuggested()"
                />
              </div>
            </div>
          </div>
        </section>
      </div>
    </div>
    <template v-if="inHand" #todo><HandPanel :sheet="bench.sheet" :cell="inHand" :is-why-open="isWhyOpen" :why-lines="whyInHand" @sent="sent" /></template>
    <template v-if="inHand && atBench.may('measure')" #main>
      <div class="acts"><v-btn @click="skip">{{ t('skip_2') }}</v-btn><v-btn variant="flat" :disabled="!entry.draft.value" @click="entry.takeNow(false)">{{ t('save_reading') }}</v-btn></div>
    </template>
    <InHand
      v-if="inHand"
      :cell="inHand"
      :refused="refusedAt(inHand)"
      :draft="entry.draft.value"
      :stopped="entry.stop.value !== null"
      :held="entry.held.value"
      @enter-held="entry.enterHeld()"
      @discard-held="entry.discardHeld()"
      @take="entry.takeNow(false)"
      @keep="bench.confirm(inHand)"
      @suggested="entry.takeSuggested()"
      @tool="entry.nextTool()"
      @why="isWhyOpen = !isWhyOpen"
    />
    <PaperDialog v-model="paperOpen" @chosen="fromPaper" />
  </InstrumentFrame>
</template>

<style scoped>
.link {
  padding: 10px 0;
  color: var(--action);
  text-decoration: underline;
}
.card {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 22px;
  padding: 4px 18px 16px;
}
.acts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px;
}
.acts :deep(.v-btn) {
  min-height: var(--main-button);
}
h2 {
  margin: 8px 0 0;
  font-size: var(--type-text);
  border-bottom: 2px solid var(--ink);
}
.line {
  border-top: 1px solid var(--hairline);
}
h2 + .line {
  border-top: 0;
}
.single {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.single .places {
  width: 84px;
  flex: none;
}
.label {
  display: block;
  padding-top: 3px;
  line-height: 1.15;
}
.places {
  display: grid;
  grid-template-columns: repeat(var(--beside), minmax(0, 1fr));
  align-items: end;
}
.place {
  min-width: 0;
}
.name {
  display: block;
  text-align: center;
  font-size: var(--type-note);
  line-height: 1.1;
  color: var(--quiet);
}
.place :deep(.figure),
.place :deep(input) {
  font-size: var(--type-target);
}
.place :deep(.mark) {
  margin-left: 1px;
  font-size: var(--type-note);
}
.manner {
  padding: 0 18px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 22px;
}
.manner label {
  display: flex;
  align-items: center;
  gap: 8px;
}
.manner select {
  min-height: var(--hit);
  padding: 0 6px;
  font: inherit;
  font-weight: 700;
  color: var(--ink);
  background: transparent;
  border: 0;
  border-bottom: 1px solid var(--ink);
}
.written {
  margin: 0;
  padding: 6px 12px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
  font-size: var(--type-text);
}
.absent {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 640px) {
  .card {
    grid-template-columns: minmax(0, 1fr);
  }
  .goes-on {
    display: none;
  }
  .goes-on + .line {
    border-top: 1px solid var(--hairline);
  }
}
</style>
