<script setup lang="ts">
/** A measuring, caliper in hand: every place of its course, the one in hand with where and how it is taken. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, Refused, type Cell } from '@/api'
import { CardCell, InHand, keyOf, useBench, useEntry } from '@/features/bench'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import { COLUMNS, COURSES, linesOf, placesOf, progress, type CourseName } from './courses'
import MeasureSketch from './MeasureSketch.vue'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const atBench = useAtBench()
const course = useStored<CourseName>('course', 'full')

const cells = computed(() => placesOf(bench.sheet?.cells ?? [], course.value))
const columns = computed(() =>
  COLUMNS.map((parts) => parts.map((part) => ({ part, lines: linesOf(cells.value, part) })).filter((one) => one.lines.length)),
)
/** Up and down a measure, left and right a place; at an end the course goes on. */
function neighbour(key: string, direction: 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown'): string {
  const at = cells.value.findIndex((cell) => keyOf(cell) === key)
  const here = cells.value[at]
  if (!here) return key
  let to = at
  if (direction === 'ArrowLeft') to = at - 1
  else if (direction === 'ArrowRight') to = at + 1
  else {
    const by = direction === 'ArrowDown' ? 1 : -1
    while (cells.value[to]?.measure === here.measure) to += by
    const other = cells.value[to]?.measure
    const first = cells.value.findIndex((cell) => cell.measure === other)
    if (first >= 0) to = first
  }
  const next = cells.value[to]
  return next ? keyOf(next) : key
}
const entry = useEntry({ cells, neighbour })
const inHand = computed(() => entry.cell.value)
const isWhyOpen = ref(false)
/** Behind what is in hand: how well it is known, what is wanted and who says so. How it is taken stands above already. */
const whyInHand = computed(() => {
  const why = isWhyOpen.value && inHand.value ? bench.sheet?.whys[keyOf(inHand.value)] : undefined
  return why ? [...why.lines.slice(1), why.follows].filter(Boolean) : []
})

watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
/* Another course begins at its first place that is still open. */
watch(course, () => {
  const first = cells.value.find((cell) => cell.state !== 'taken') ?? cells.value[0]
  if (first && !cells.value.some((cell) => keyOf(cell) === entry.inHand.value)) entry.goTo(keyOf(first))
})

function waitingOf(cell: Cell): string | null {
  return bench.waitingHere.filter(({ body }) => body.measure === cell.measure && (body.position ?? null) === cell.position).at(-1)?.body.typed ?? null
}
function refusedAt(cell: Cell | null): string | null {
  return cell ? (bench.refusals[bench.placeOf(cell)] ?? null) : null
}
/** A height keeps its hundredths; what is measured by a rule has no use for them. */
function placesShown(cell: Cell): number {
  return ['end_height', 'nut_height', 'slot_depth', 'relief'].includes(cell.measure) ? 2 : 1
}
/** A left-handed instrument's strings stand mirrored, as one sees them. */
function seen(line: Cell[]): Cell[] {
  const isOfStrings = bench.sheet?.instrument.string_names.length === line.length && line[0]?.place === bench.sheet.instrument.string_names[0]
  return isOfStrings && bench.sheet?.instrument.left_handed ? [...line].reverse() : line
}
/** How many places stand beside each other: strings all, sides in rows of three. */
function beside(line: Cell[]): number {
  if (line.length === 1) return 1
  return line.length === 3 || (line.length === 6 && line[0]?.measure === 'relief') ? 3 : Math.max(4, line.length)
}
function toSheet(): void {
  void router.push({ name: 'bench', params: { ticket: props.ticket } })
}
function skip(): void {
  const at = cells.value.findIndex((cell) => keyOf(cell) === entry.inHand.value)
  const next = cells.value.slice(at + 1).find((cell) => cell.state !== 'taken') ?? cells.value.find((cell) => cell.state !== 'taken')
  if (next) entry.goTo(keyOf(next))
}

/* A caliper types like a keyboard and needs nothing of this; the simulated one is for trying and for learning. */
const FAULTS = { noisy: 'its readings jump', wrongly_zeroed: 'wrongly zeroed', in_inches: 'in inches', chatty: 'chatty with units', offline: 'offline' } as const
const manner = useStored<string[]>('caliper', [])
const caliperFault = ref('')
watch(entry.inHand, () => (caliperFault.value = ''))
async function caliperSends(): Promise<void> {
  const cell = inHand.value
  if (!cell) return
  const body = { measure: cell.measure, position: cell.position, manner: manner.value }
  try {
    const { typed } = await answerOf(api.POST('/api/instruments/{ticket}/caliper', { params: { path: { ticket: props.ticket } }, body }))
    caliperFault.value = ''
    entry.setDraft(typed.trim())
    entry.takeNow(false)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    caliperFault.value = error.message
  }
}

useCommands([
  { letter: 'k', words: 'the simulated caliper sends', run: () => void caliperSends(), possible: () => atBench.may('measure') && inHand.value !== null },
  { letter: 'e', words: 'the sheet', run: toSheet },
  { letter: 'a', words: 'just what the bridge needs', run: () => (course.value = 'bridge') },
  { letter: 'x', words: 'in full', run: () => (course.value = 'full') },
  { letter: 'j', words: 'a recheck', run: () => (course.value = 'recheck') },
  { letter: 's', words: 'skip to the next that is open', run: skip },
  { letter: 'm', words: 'take what was meant', run: () => entry.takeSuggested(), possible: () => (inHand.value?.doubt?.suggested ?? null) !== null },
  { letter: 'w', words: 'why', run: () => (isWhyOpen.value = !isWhyOpen.value), possible: () => inHand.value !== null },
  { letter: 'u', words: 'undo', run: () => void bench.undo(), possible: () => atBench.may('measure') && (bench.sheet?.undoable ?? null) !== null },
])
</script>

<template>
  <p v-if="bench.failure && !bench.sheet" class="absent" role="alert">{{ bench.failure }}</p>
  <main v-else-if="bench.sheet" class="page" aria-label="Measuring">
    <header>
      <h1>{{ ticket }} measured</h1>
      <div class="courses" role="group" aria-label="Course of measuring">
        <button v-for="(words, name) in COURSES" :key="name" type="button" class="plain-button" :aria-pressed="course === name" @click="course = name">{{ words }}</button>
      </div>
      <b role="status">{{ progress(cells) }}</b>
      <router-link class="link" :to="{ name: 'bench', params: { ticket } }">the sheet</router-link>
    </header>
    <p v-if="bench.failure" class="fault" role="alert">{{ bench.failure }}</p>
    <div class="card">
      <div v-for="(parts, c) in columns" :key="c" class="column">
        <section v-for="one in parts" :key="one.part" :aria-label="one.part">
          <h2>{{ one.part }}</h2>
          <div v-for="line in one.lines" :key="line.measure" class="line" :class="{ single: line.cells.length === 1 }" role="group" :aria-label="line.label">
            <span class="label">{{ line.label }}</span>
            <div class="places" :style="{ '--beside': beside(line.cells) }">
              <div v-for="cell in seen(line.cells)" :key="keyOf(cell)" class="place">
                <span v-if="cell.place" class="name" aria-hidden="true">{{ cell.place }}</span>
                <CardCell
                  :cell="cell"
                  :in-hand="keyOf(cell) === entry.inHand.value"
                  :draft="bench.drafts[bench.placeOf(cell)] ?? ''"
                  :waiting="waitingOf(cell)"
                  :refused="refusedAt(cell)"
                  :places="placesShown(cell)"
                  @pick="entry.goTo(keyOf(cell))"
                  @draft="entry.setDraft"
                  @key="entry.onKey"
                />
              </div>
            </div>
          </div>
        </section>
      </div>
    </div>
    <aside v-if="inHand" class="hand" aria-label="In hand">
      <MeasureSketch :measure="inHand.measure" :position="inHand.position" :left-handed="bench.sheet.instrument.left_handed" />
      <h2 class="title">{{ inHand.name }}</h2>
      <p>{{ inHand.how.charAt(0).toUpperCase() }}{{ inHand.how.slice(1) }}.</p>
      <p v-if="inHand.slip"><b>The usual slip:</b> {{ inHand.slip }}.</p>
      <p v-for="line in whyInHand" :key="line" class="quiet">{{ line }}</p>
      <p v-if="inHand.told !== null">Told by {{ inHand.told_by }}; a reading of its own counts before that.</p>
      <details v-if="atBench.may('measure')" class="caliper">
        <summary>Simulated caliper</summary>
        <label v-for="(words, name) in FAULTS" :key="name"><input v-model="manner" type="checkbox" :value="name" />{{ words }}</label>
        <v-btn @click="caliperSends">It sends</v-btn>
      </details>
      <p v-if="caliperFault" class="fault" role="alert">{{ caliperFault }}</p>
    </aside>
    <InHand
      v-if="inHand"
      :cell="inHand"
      :refused="refusedAt(inHand)"
      :draft="entry.draft.value"
      :away="bench.isAway"
      :waiting-count="bench.waiting.length"
      @take="entry.takeNow(false)"
      @keep="bench.confirm(inHand)"
      @suggested="entry.takeSuggested()"
      @why="isWhyOpen = !isWhyOpen"
    />
  </main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 292px;
  gap: 8px 12px;
  padding: 6px 16px 64px;
  align-items: start;
}
header {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 18px;
  min-height: 44px;
}
h1 {
  margin: 0;
  font-size: 23px;
}
.courses {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
}
.courses button {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--ink);
  border-radius: 4px;
}
.courses [aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.link {
  padding: 10px 0;
  color: var(--action);
}
.card {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 18px;
  padding: 4px 16px 16px;
  background: var(--sheet);
  border-radius: 4px;
}
h2 {
  margin: 8px 0 0;
  font-size: 17px;
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
  font-size: 13px;
  line-height: 1.1;
  color: var(--quiet);
}
.place :deep(.figure),
.place :deep(input) {
  font-size: 25px;
}
.hand {
  position: sticky;
  top: 6px;
  padding: 12px 16px 16px;
  background: var(--sheet);
  border-radius: 4px;
  font-size: 17px;
}
.title {
  border: 0;
  font-size: 21px;
  line-height: 1.15;
}
.title::first-letter {
  text-transform: uppercase;
}
.hand p {
  margin: 8px 0 0;
}
.caliper {
  margin-top: 12px;
  border-top: 1px solid var(--hairline);
}
.caliper summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
.caliper label {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: 40px;
}
.caliper input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.quiet {
  color: var(--quiet);
}
.fault {
  grid-column: 1 / -1;
  margin: 0;
  color: var(--error);
  font-weight: 700;
}
.absent {
  padding: 40px 24px;
  font-size: 18px;
}
@media (max-width: 1000px) {
  .card {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .hand {
    order: -1;
    position: static;
  }
  header {
    order: -2;
  }
  .hand :deep(svg) {
    max-height: 130px;
  }
}
@media (max-width: 640px) {
  .card {
    grid-template-columns: minmax(0, 1fr);
  }
  .page {
    padding: 6px 0 64px;
  }
  header {
    padding: 0 12px;
  }
}
</style>
