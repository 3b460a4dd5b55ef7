<script setup lang="ts">
/** Which of these need a luthier: a fleet, or the whole house, answered by keyboard, and acted on together. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, Refused, type ScreenCell, type ScreenColumn, type ScreenRow } from '@/api'
import { keyOf, takeBack, useBench } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { useOutbox } from '@/outbox'
import { changed } from '@/shared/changes'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import ActOnTicked from './ActOnTicked.vue'
import { EVERYTHING, fleetsOf, tally, ticketsOf } from './rows'
import { useSaid } from './said'
import ScreenGrid from './ScreenGrid.vue'
import { t } from '@/words/screening'

const AT_ONCE = 15
const RETRY_AFTER_MS = 2500

const props = defineProps<{ of: string }>()
const router = useRouter()
const bench = useBench()
const house = useHouse()
const atBench = useAtBench()
const outbox = useOutbox()
const said = useSaid()

const columns = ref<ScreenColumn[]>([])
const byTicket = ref<Record<string, ScreenRow>>({})
const ticked = ref<string[]>([])
const failure = ref('')
const inHand = ref({ ticket: '', look: '' })
const grid = ref<InstanceType<typeof ScreenGrid> | null>(null)
const acts = ref<InstanceType<typeof ActOnTicked> | null>(null)
/** What was answered here, so that it can be taken back, the newest last. */
const given = ref<{ ticket: string; kind: 'reading' | 'seen'; id: string }[]>([])

const fleets = computed(() => fleetsOf(house.tags))
const of = computed(() => props.of || fleets.value[0]?.owner || EVERYTHING)
const tickets = computed(() => ticketsOf(house.tags, of.value))
const rows = computed(() => tickets.value.map((ticket) => byTicket.value[ticket]).filter((row): row is ScreenRow => row !== undefined))
const isWhole = computed(() => rows.value.length === tickets.value.length)
const mayAnswer = computed(() => atBench.may('measure'))

/** Fetch rows, a handful at a time, so that the first can be answered while the rest come. */
async function load(wanted: readonly string[]): Promise<void> {
  try {
    for (let i = 0; i < wanted.length; i += AT_ONCE) {
      const screen = await answerOf(api.GET('/api/screening', { params: { query: { ticket: wanted.slice(i, i + AT_ONCE) } } }))
      columns.value = screen.columns
      byTicket.value = { ...byTicket.value, ...Object.fromEntries(screen.rows.map((row) => [row.ticket, row])) }
    }
    failure.value = ''
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
    if (error.away) setTimeout(() => void load(wanted.filter((ticket) => tickets.value.includes(ticket))), RETRY_AFTER_MS)
  }
}
watch(
  tickets,
  async (now) => {
    const isFirst = !rows.value.length
    ticked.value = ticked.value.filter((ticket) => now.includes(ticket))
    await load(now.filter((ticket) => !(ticket in byTicket.value)))
    if (isFirst && document.activeElement === document.body) void nextTick(() => grid.value?.begin())
  },
  { immediate: true },
)

/* What is answered at another bench shows here too. */
watch(changed, ({ ticket }) => {
  const here = ticket === null ? Object.keys(byTicket.value) : [ticket].filter((one) => one in byTicket.value)
  if (here.length) void load(here)
})

/* A row is asked for again when what waited at it has arrived. */
const waitingAt = computed(() => [...bench.waiting, ...said.waiting.value].map((one) => ({ ticket: one.ticket, id: one.body.id })))
watch(waitingAt, (now, before) => {
  const gone = before.filter((one) => !now.some((still) => still.id === one.id)).map((one) => one.ticket)
  const here = [...new Set(gone)].filter((ticket) => tickets.value.includes(ticket))
  if (here.length) void load(here)
})

function placeOf(ticket: string, cell: ScreenCell): string {
  return `${ticket}/${keyOf({ measure: cell.measure, position: cell.position })}`
}
function waits(ticket: string, column: ScreenColumn, cell: ScreenCell): { verdict?: string; typed?: string; refused?: string } {
  if (column.item) {
    const saying = said.waiting.value.filter((one) => one.ticket === ticket && one.item === column.item).at(-1)
    const findings = saying?.body.findings?.length ? 'work' : ''
    return { verdict: saying && (saying.body.verdict || findings), refused: said.refused.value[`${ticket}/${column.item}`] }
  }
  const reading = bench.waiting.filter((one) => one.ticket === ticket && keyOf({ measure: one.body.measure, position: one.body.position ?? null }) === keyOf(cell)).at(-1)
  return { typed: reading?.body.typed, refused: bench.refusals[placeOf(ticket, cell)] }
}
function say(ticket: string, item: string, what: { verdict: string; findings: string[]; words: string }): void {
  const label = columns.value.find((column) => column.item === item)?.label ?? item
  given.value.push({ ticket, kind: 'seen', id: said.say(ticket, item, what, t('inspection', { label })) })
}
function nameOf(row: ScreenRow, cell: ScreenCell): string {
  return columns.value[row.cells.indexOf(cell)]?.label ?? cell.measure
}
function read(row: ScreenRow, cell: ScreenCell, typed: string): void {
  given.value.push({ ticket: row.ticket, kind: 'reading', id: bench.takeAt(row.ticket, { ...cell, name: nameOf(row, cell) }, typed, row.last_work) })
}
async function undo(): Promise<void> {
  const last = given.value.at(-1)
  if (!last) return
  try {
    const unsent = outbox.rows.find((row) => row.id === last.id)
    if (!unsent || !(await outbox.drop(unsent))) await outbox.submit(takeBack(last.ticket, { ...last, words: t('an_answer') }))
    given.value.pop()
    failure.value = ''
    await load([last.ticket])
    grid.value?.again()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
    if (!error.away) given.value.pop()
  }
}
function at(ticket: string, column: ScreenColumn | null): void {
  inHand.value = { ticket, look: column === null ? '' : `${column.label}: ${column.look}` }
}
function tick(needs: ScreenRow['needs'][]): void {
  ticked.value = rows.value.filter((row) => needs.includes(row.needs)).map((row) => row.ticket)
  grid.value?.again()
}
async function acted(on: string[]): Promise<void> {
  await house.load()
  await load(on.filter((ticket) => tickets.value.includes(ticket)))
}
const told = failure
const refusedHere = computed(() => {
  const row = byTicket.value[inHand.value.ticket]
  if (!row) return []
  return row.cells.flatMap((cell, i) => {
    const column = columns.value[i]
    const sentence = column && (waits(row.ticket, column, cell).refused ?? cell.doubt)
    return sentence ? [`${row.ticket} ${column.label}: ${sentence}`] : []
  })
})

useCommands([
  { letter: 't', own: true, words: t('tick_those_that_need_a'), run: () => tick(['luthier']), possible: () => rows.value.length > 0 },
  { letter: 'm', own: true, words: t('tick_those_that_do_not'), run: () => tick(['nothing', 'small']), possible: () => rows.value.length > 0 },
  { letter: 'a', own: true, words: t('tick_all'), run: () => tick(['luthier', 'small', 'nothing', 'open']), possible: () => rows.value.length > 0 },
  { letter: 'x', own: true, words: t('tick_none'), run: () => tick([]), possible: () => ticked.value.length > 0 },
  { letter: 'd', own: true, words: t('do_with_those_ticked'), run: () => acts.value?.begin(), possible: () => ticked.value.length > 0 },
  { letter: 'e', words: t('the_sheet_in_hand'), run: () => void router.push({ name: 'bench', params: { ticket: inHand.value.ticket } }), possible: () => inHand.value.ticket !== '' },
  { letter: 'u', words: t('undo'), run: () => void undo(), possible: () => given.value.length > 0 },
])
</script>

<template>
  <main class="page" :aria-label="t('screening')">
    <header>
      <h1>{{ t('which_need_a_luthier') }}</h1>
      <label class="of">
        <span class="only-read">{{ t('whose') }}</span>
        <select :value="of" :aria-label="t('whose_instruments')" @change="router.replace({ name: 'screening', query: { of: ($event.target as HTMLSelectElement).value } })">
          <option v-for="fleet in fleets" :key="fleet.owner" :value="fleet.owner">{{ fleet.owner }}, {{ fleet.count }}</option>
          <option :value="EVERYTHING">{{ t('everything_in_the_house', { count: house.tags.length }) }}</option>
        </select>
      </label>
      <b role="status">{{ isWhole ? (rows.length ? tally(rows) : '') : t('of', { rows: rows.length, tickets: tickets.length }) }}</b>
      <p class="how">
        <template v-if="inHand.look">{{ inHand.look }}</template>
        <template v-else>{{ t('n_1_fine_2_watch_3') }}</template>
      </p>
    </header>
    <p v-if="told" class="fault" role="alert">{{ told }}</p>
    <p v-for="line in refusedHere" :key="line" class="fault" role="alert">{{ line }}</p>
    <p v-if="house.isLoaded && !tickets.length" class="none">
      {{ t('nothing_of_hangs_on_the', { of }) }} <kbd>Space</kbd> <kbd>v</kbd> {{ t('takes_a_fleet_in_with') }}
    </p>
    <div v-if="rows.length" class="scroll">
      <ScreenGrid
        ref="grid"
        v-model:ticked="ticked"
        :columns="columns"
        :rows="rows"
        :may-answer="mayAnswer"
        :waits="waits"
        :draft-of="(ticket, cell) => bench.drafts[placeOf(ticket, cell)] ?? ''"
        @say="say"
        @read="read"
        @draft="(ticket, cell, text) => bench.setDraft(placeOf(ticket, cell), text)"
        @at="at"
      />
    </div>
    <ActOnTicked v-if="rows.length" ref="acts" :ticked="ticked" :rows="rows" @acted="acted" @leave="grid?.again()" />
  </main>
</template>

<style scoped>
.page {
  margin: 6px 16px 64px;
  background: var(--sheet);
  border-radius: var(--corner);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 20px;
  min-height: var(--main-button);
  padding: 4px 12px;
}
h1 {
  margin: 0;
  font-size: var(--type-title);
}
select {
  min-height: var(--hit);
  padding: 0 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.how {
  flex-basis: 100%;
  margin: 0;
}
.fault {
  margin: 0;
  padding: 4px 12px;
}
.none {
  padding: 20px 12px;
}
.scroll {
  overflow-x: auto;
}
kbd {
  padding: 1px 7px;
  font: inherit;
  font-weight: 700;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
@media (max-width: 640px) {
  .page {
    margin: 6px 0 64px;
  }
}
</style>
