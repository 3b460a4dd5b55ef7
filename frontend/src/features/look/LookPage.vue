<script setup lang="ts">
/** The look-over: items in working order, the one in hand with its verdict, findings, words and photographs. */
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answerOf, api, Refused, type ItemView } from '@/api'
import { useBench } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import PhotoStrip from './PhotoStrip.vue'
import { useDrafts, type Draft } from './useDrafts'
import { useSaying } from './useSaying'
import VerdictMark from './VerdictMark.vue'
import { VERDICTS, VERDICT_WORDS } from './verdicts'
import { t } from '@/words/look'

const RETRY_AFTER_MS = 2500

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const route = useRoute()
const bench = useBench()
const house = useHouse()
const atBench = useAtBench()

/** As the server has them. */
const rows = ref<ItemView[]>([])
const inHand = ref('')
const failure = ref('')
const fault = ref('')
let isGone = false
const form = ref<HTMLFormElement | null>(null)

const { items, refusals, say } = useSaying({ ticket: () => props.ticket, rows, load, giveBack: comeBack })
const mayLook = computed(() => atBench.may('measure'))
const item = computed(() => items.value.find((row) => row.item === inHand.value) ?? null)
const blank = computed(() => items.value.filter((row) => row.is_asked && row.verdict === '').length)
const key = computed(() => `${props.ticket}/${inHand.value}`)

const { draft, leading, isChanged, change, forget, giveBack, toggle } = useDrafts(key, item, () => {
  fault.value = ''
  refusals.value = { ...refusals.value, [key.value]: '' }
})
const said = computed(() => fault.value || refusals.value[key.value])

let newest: Promise<void> = Promise.resolve()
/** The list as it is now; an answer that was overtaken waits for the newer one. */
function load(): Promise<void> {
  const mine: Promise<void> = (newest = ask(() => mine === newest))
  return mine
}
async function ask(isNewest: () => boolean): Promise<void> {
  const of = props.ticket
  try {
    const found = await answerOf(api.GET('/api/instruments/{ticket}/look', { params: { path: { ticket: of } } }))
    if (!isNewest()) return await newest
    if (of !== props.ticket) return
    rows.value = found
    failure.value = ''
    const wanted = items.value.find((row) => row.item === route.query.item)
    if (!item.value) go(wanted ?? items.value.find((row) => row.is_asked && row.verdict === '') ?? items.value[0])
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (!isNewest() || of !== props.ticket) return
    failure.value = error.away ? t('trying_again', { message: error.message }) : error.message
    if (error.away && !isGone) setTimeout(() => void load(), RETRY_AFTER_MS)
  }
}
/* What is found at another bench shows here too. */
watch(() => bench.sheet, (now, before) => {
  if (now && before) void load()
})
watch(
  () => props.ticket,
  async () => {
    inHand.value = ''
    rows.value = []
    await bench.open(props.ticket)
    await load()
  },
  { immediate: true },
)

function go(to: ItemView | undefined): void {
  if (!to) return
  inHand.value = to.item
  fault.value = ''
  void nextTick(() => {
    const radios = form.value?.querySelectorAll<HTMLInputElement>('input[type="radio"]')
    const checked = [...(radios ?? [])].find((radio) => radio.checked)
    ;(checked ?? radios?.[0])?.focus()
    // Where the list stands below, the page stays at the item in hand.
    if (window.innerWidth > 800) document.querySelector(`[data-item="${inHand.value}"]`)?.scrollIntoView({ block: 'nearest' })
  })
}
function step(by: number): void {
  const at = items.value.findIndex((row) => row.item === inHand.value)
  go(items.value[at + by])
}

/** What was refused is in hand again, unless something else is being said by now. */
function comeBack(name: string, was: Draft): void {
  giveBack(name, was)
  if (!isChanged.value) go(items.value.find((row) => `${props.ticket}/${row.item}` === name))
}
/** Keep what was said of the item in hand, and take the next at once. */
function keep(): void {
  if (!item.value || !mayLook.value) return
  const { verdict, findings } = draft.value
  if (isChanged.value) {
    if (verdict === '' && !findings.length) {
      fault.value = t('choose_fine_watch_or_work')
      return
    }
    void say(item.value, draft.value).then(() => house.load())
    forget(key.value)
  }
  step(1)
}
async function redo(): Promise<void> {
  if (await bench.redo()) await load()
}
async function undo(): Promise<void> {
  if (await bench.undo()) await load()
}
function toSheet(): void {
  void router.push({ name: 'bench', params: { ticket: props.ticket } })
}

const onKey = (event: KeyboardEvent) => {
  if (document.querySelector('.v-overlay--active')) return
  const digit = Number(event.key)
  const isTyping = event.target instanceof HTMLElement && event.target.closest('textarea, input:not([type="radio"], [type="checkbox"])') !== null
  const answer = VERDICTS[digit - 1]
  if (answer && mayLook.value && atBench.bareKeys && !isTyping && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault()
    change({ verdict: answer.value })
    return
  }
  if (event.key === 'Escape' && document.activeElement instanceof HTMLElement) document.activeElement.blur()
  if (event.key === 'PageDown' || event.key === 'PageUp') {
    event.preventDefault()
    step(event.key === 'PageDown' ? 1 : -1)
  }
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => {
  isGone = true
  window.removeEventListener('keydown', onKey)
})

useCommands([
  { letter: 'e', words: t('bench_sheet'), run: toSheet },
  { letter: 'u', words: t('undo'), run: () => void undo(), possible: () => mayLook.value && (bench.sheet?.undoable?.kind === 'seen' || items.value.some((row) => row.waits)) },
  { letter: '/', words: t('redo'), run: () => void redo(), possible: () => bench.redoable !== null },
])
</script>

<template>
  <p v-if="failure" class="missing" role="alert">{{ failure }}</p>
  <InstrumentFrame v-else :ticket="ticket" page="look" :title="t('inspection_2')" :label="t('inspection_2')">
    <template #head>
      <span role="status">{{ blank ? t('items_left', { blank }) : t('all_items_inspected') }}</span>
    </template>
    <div class="page">
    <nav class="items" :aria-label="t('items_in_working_order')">
      <button
        v-for="row in items"
        :key="row.item"
        type="button"
        class="plain-button item"
        :class="[row.verdict || 'blank', { asked: row.is_asked, waits: row.waits }]"
        :data-item="row.item"
        :aria-current="row.item === inHand ? 'step' : undefined"
        @click="go(row)"
      >
        <VerdictMark :verdict="row.is_mended && !row.waits ? '' : row.verdict" />
        <span class="name">{{ row.label }}</span>
        <span class="said">{{ refusals[`${ticket}/${row.item}`] ? t('not_saved') : row.is_mended && !row.waits ? t('mended') : row.verdict ? VERDICT_WORDS[row.verdict] : row.is_asked ? t('blank') : t('not_asked') }}</span>
      </button>
    </nav>
    <section v-if="item" class="hand" :aria-label="item.label">
      <form ref="form" @submit.prevent="keep">
        <h2>{{ item.label.charAt(0).toUpperCase() }}{{ item.label.slice(1) }}</h2>
        <p class="how">{{ item.look.charAt(0).toUpperCase() }}{{ item.look.slice(1) }}.</p>
        <fieldset :disabled="!mayLook">
          <legend class="only-read">{{ t('what_it_is') }}</legend>
          <label v-for="(row, i) in VERDICTS" :key="row.value" class="choice verdict" :class="{ chosen: draft.verdict === row.value }">
            <input type="radio" name="verdict" :value="row.value" :checked="draft.verdict === row.value" @change="change({ verdict: row.value })" @keydown.enter.prevent="keep" />
            <VerdictMark :verdict="row.value" />{{ row.label }}<kbd aria-hidden="true">{{ i + 1 }}</kbd>
          </label>
        </fieldset>
        <fieldset v-if="item.findings.length" class="findings" :disabled="!mayLook">
          <legend class="only-read">{{ t('what_is_found') }}</legend>
          <label v-for="row in item.findings" :key="row.finding" class="choice">
            <input type="checkbox" :checked="draft.findings.includes(row.finding)" @change="toggle(row.finding)" @keydown.enter.prevent="keep" />
            {{ row.label }}
          </label>
        </fieldset>
        <p v-if="item.mended.length" class="how"><b>{{ t('mended_since', { list: item.mended.join(', ') }) }}</b></p>
        <p v-for="row in leading" :key="row.finding" class="how">{{ row.label.charAt(0).toUpperCase() }}{{ row.label.slice(1) }}: {{ row.leads_to }}.</p>
        <v-textarea
          :model-value="draft.words"
          :readonly="!mayLook"
          :label="draft.verdict === 'not_looked_at' ? t('reason_it_was_not_inspected') : t('notes')"
          rows="1"
          max-rows="8"
          auto-grow
          maxlength="20000"
          @update:model-value="change({ words: $event })"
          @keydown.enter.exact.prevent="keep"
        />
        <p v-if="said" class="fault" role="alert">{{ said }}</p>
        <div class="acts">
          <!-- The second click of a double one is not for the next item. -->
          <v-btn v-if="mayLook" type="submit" variant="flat" @click="$event.detail > 1 && $event.preventDefault()">{{ isChanged ? t('save_and_next_item') : t('next_item') }}</v-btn>
          <span v-if="item.by" class="quiet">{{ item.by }}</span>
          <span v-if="!mayLook" class="quiet">{{ t('reads_here_whoever_looks_it', { person: atBench.person }) }}</span>
        </div>
      </form>
      <PhotoStrip :key="ticket" :ticket="ticket" :item="item.item" :may-inspect="mayLook" :may-add="atBench.may('arrive')" />
    </section>
    </div>
  </InstrumentFrame>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 0 12px;
  padding: 0 8px 8px;
  align-items: start;
}
.items {
  border-right: 1px solid var(--hairline);
}
.item {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 0 10px;
  align-items: center;
  width: 100%;
  min-height: 40px;
  padding: 0 14px;
  text-align: left;
}
.item + .item {
  border-top: 1px solid var(--hairline);
}
.item[aria-current] {
  background: var(--chosen);
  color: var(--on-chosen);
}
.said {
  color: var(--quiet);
}
.item[aria-current] .said {
  color: inherit;
}
.waits .said {
  font-style: italic;
}
.blank.asked .said,
.work .said {
  font-weight: 700;
}
.hand {
  padding: 16px 20px 20px;
  font-size: var(--type-text);
}
h2 {
  margin: 0;
  font-size: var(--type-title);
}
.how {
  margin: 2px 0 10px;
  color: var(--quiet);
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 0 0 10px;
  padding: 0;
  border: 0;
}
.findings {
  padding-top: 6px;
  border-top: 1px solid var(--hairline);
}
.verdict {
  flex: 1 1 150px;
  min-height: 56px;
  padding: 0 12px;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.verdict.chosen {
  font-weight: 700;
  border: 2px solid var(--ink);
}
.verdict kbd {
  margin-left: auto;
  font: inherit;
  color: var(--quiet);
}
@media (max-width: 640px), (hover: none) {
  .verdict kbd {
    display: none;
  }
}
.choice {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: var(--hit);
  cursor: pointer;
}
input[type='radio'],
input[type='checkbox'] {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}
.quiet {
  color: var(--quiet);
}
.fault {
  margin: 8px 0 0;
}
.missing {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 800px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .items {
    border-right: 0;
  }
  .hand {
    order: -1;
  }
}
</style>
