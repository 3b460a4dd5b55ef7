<script setup lang="ts">
/** One figure opened: what it is, who set it, what stood before, and the fields to change it. */
import { computed, nextTick, onMounted, reactive, ref } from 'vue'
import { MeasureSketch } from '@/features/drawing'
import { type Family, answerOf, api, Refused, type FigureLine, type FigurePage, type FigureRow } from '@/api'
import { ago, plain } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useAtBench } from '@/shared/person'
import { hasFigure, inWords } from './rows'
import { sketchedAs } from './sketched'
import { t } from '@/words/figures'


const props = defineProps<{ row: FigureRow; family: string; size: string }>()
const emit = defineEmits<{ close: []; changed: [page: FigurePage, entrySize: string, what: string] }>()
const atBench = useAtBench()

const PARTS: Record<string, ('low' | 'aim' | 'high')[]> = {
  band: ['low', 'aim', 'high'],
  floor: ['low'],
  ceiling: ['high'],
}
const parts = computed(() => {
  if (props.row.shape === 'factor') return props.row.low === null ? ['aim' as const] : PARTS.band ?? []
  return PARTS[props.row.shape] ?? ['aim' as const]
})
const UNITS: Record<string, string> = { degrees: t('degrees'), times: t('times'), share: t('share'), '% of aim': t('of_the_aim') }
const NAMES = { low: t('low'), aim: t('aim'), high: t('high') }

function text(value: number | null): string {
  return value === null ? '' : plain(value)
}
const typed = reactive({
  low: text(props.row.low),
  aim: text(props.row.aim),
  high: text(props.row.high),
  source: props.row.own ? props.row.source : '',
})
const mayChange = computed(() => atBench.may('figures'))
const confirmed = ref(false)
const sure = ref(false)
const onlyThisSize = ref(!props.row.every_size)
const errors = ref<Record<string, string>>({})
const failure = ref('')
const isSending = ref(false)
const history = ref<FigureLine[] | null>(null)
const form = ref<HTMLFormElement | null>(null)

const entrySize = computed(() => (onlyThisSize.value ? props.size : ''))
function key(of = entrySize.value) {
  return {
    family: props.family as Family,
    size: of,
    measure: props.row.measure,
    question: props.row.question,
    school: props.row.school,
  }
}
/** The figure in force is of this size, or of every size. */
const inForce = computed(() => (props.row.every_size ? '' : props.size))

onMounted(() => {
  void loadHistory()
  void nextTick(() => form.value?.querySelector('input')?.select())
})

async function loadHistory(): Promise<void> {
  try {
    history.value = await answerOf(api.GET('/api/figures/history', { params: { query: key(inForce.value) } }))
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  }
}

async function send(request: () => Promise<FigurePage>, of: string, what: string): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  errors.value = {}
  failure.value = ''
  try {
    emit('changed', await request(), of, what)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    errors.value = error.fields
    if (!['low', 'aim', 'high', 'source'].some((name) => name in error.fields)) failure.value = error.message
    void nextTick(() => form.value?.querySelector<HTMLInputElement>('[aria-invalid="true"]')?.focus())
  } finally {
    isSending.value = false
  }
}

function keep(): void {
  const of = (name: 'low' | 'aim' | 'high') => (parts.value.includes(name) ? typed[name] : '')
  const body = {
    ...key(),
    low: of('low'),
    aim: of('aim'),
    high: of('high'),
    source: typed.source,
    confirmed: confirmed.value,
    sure: sure.value,
    id: freshId(),
    page_size: props.size,
  }
  void send(() => answerOf(api.PUT('/api/figures', { body })), entrySize.value, 'kept')
}
function withdraw(): void {
  const body = { ...key(inForce.value), id: freshId(), page_size: props.size }
  void send(() => answerOf(api.POST('/api/figures/withdraw', { body })), inForce.value, t('the_starting_value_stands_again'))
}

const standing = computed(() => {
  if (!hasFigure(props.row)) return t('no_figure_enter_the_shops')
  if (props.row.follows) return t('worked_out_from_the_plain', { follows: props.row.follows })
  const who = props.row.confirmed_by ? t('stands_by_it', { confirmed_by: props.row.confirmed_by }) : t('nobody_has_confirmed_it_yet')
  return `${props.row.source.charAt(0).toUpperCase()}${props.row.source.slice(1)}. ${who}`
})
function lineWords(line: FigureLine): string {
  return inWords({ ...props.row, low: line.low, aim: line.aim, high: line.high })
}
</script>

<template>
  <section @keydown.esc="emit('close')">
    <h2>
      <span><template v-if="row.school_label">{{ row.school_label }}:<br /></template>{{ row.label }}</span>
      <button type="button" class="plain-button close" :aria-label="t('close_the_figure')" @click="emit('close')">×</button>
    </h2>
    <MeasureSketch v-bind="sketchedAs(row.measure)" :left-handed="false" />
    <p class="standing">{{ standing }}</p>
    <p v-if="!mayChange" class="standing">{{ t('only_the_owner_changes_the') }}</p>
    <form v-else ref="form" novalidate @submit.prevent="keep">
      <div class="parts">
        <label v-for="name in parts" :key="name" class="part">
          <span>{{ parts.length > 1 ? NAMES[name] : row.shape === 'floor' ? t('at_least') : row.shape === 'ceiling' ? t('at_most') : t('figure') }}<span v-if="UNITS[row.unit]" class="unit">{{ UNITS[row.unit] }}</span></span>
          <input
            v-model="typed[name]"
            :aria-label="`${row.label}, ${NAMES[name]}`"
            inputmode="decimal"
            autocomplete="off"
            data-reading
            :aria-invalid="name in errors"
            :aria-describedby="name in errors ? 'figure-error' : undefined"
          />
        </label>
      </div>
      <p v-for="name in parts.filter((part) => part in errors)" id="figure-error" :key="name" class="error" role="alert">{{ errors[name] }}</p>
      <label class="source">
        <span>{{ t('where_it_comes_from') }}</span>
        <input v-model="typed.source" autocomplete="off" :placeholder="t('the_shops_own')" />
      </label>
      <fieldset v-if="row.every_size" class="scope">
        <legend class="only-read">{{ t('where_it_holds') }}</legend>
        <label><input v-model="onlyThisSize" type="radio" :value="false" /> {{ t('every_size') }}</label>
        <label><input v-model="onlyThisSize" type="radio" :value="true" /> {{ t('only', { size }) }}</label>
      </fieldset>
      <label class="check"><input v-model="confirmed" type="checkbox" /> {{ t('stands_by_it_2', { person: atBench.person }) }}</label>
      <p v-if="failure" class="error" role="alert">{{ failure }}</p>
      <label v-if="'sure' in errors || sure" class="check"><input v-model="sure" type="checkbox" /> {{ t('it_is_meant') }}</label>
      <div class="acts">
        <v-btn v-if="row.own" @click="withdraw">{{ t('starting_value') }}</v-btn>
        <v-btn type="submit" variant="flat" :loading="isSending">{{ t('save') }}</v-btn>
      </div>
    </form>
    <h3>{{ t('so_far') }}</h3>
    <p v-if="!history">{{ t('loading') }}</p>
    <p v-else-if="!history.length">{{ t('nothing_was_ever_entered') }}</p>
    <ol v-else class="history">
      <li v-for="(line, i) in history" :key="i">
        <b>{{ line.what === 'back to the starting value' ? t('back_to_the_start') : lineWords(line) }}</b>
        <span>{{ line.entered_by ? `${line.entered_by}, ${line.entered_at ? ago(line.entered_at) : ''}` : line.what }}<template v-if="line.confirmed_by">{{ t('confirmed') }}</template></span>
        <span v-if="line.entered_by && line.what === 'entered'" class="why">{{ line.source }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 8px;
  font-size: var(--type-target);
  line-height: 1.25;
  margin: 0 0 6px;
}
h3 {
  font-size: var(--type-text);
  margin: 16px 0 2px;
}
.close {
  flex: none;
  min-width: var(--hit);
  min-height: var(--hit);
  margin: -8px -8px 0 0;
  text-align: center;
  font-size: var(--type-title);
}
.standing {
  margin: 0 0 10px;
}
.parts {
  display: flex;
  gap: 8px;
}
.part {
  flex: 1;
  min-width: 0;
  max-width: 150px;
}
.part > span,
.source > span {
  display: block;
}
.unit {
  margin-left: 6px;
  color: var(--quiet);
}
.part input,
.source input {
  width: 100%;
  min-height: var(--hit);
  padding: 2px 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.part input {
  font-size: var(--type-reading);
  font-weight: 700;
  text-align: center;
}
.part input[aria-invalid='true'] {
  border: 2px solid var(--error);
}
.error {
  margin: 6px 0 0;
  color: var(--error);
  font-weight: 700;
}
.source {
  display: block;
  margin-top: 10px;
}
.scope {
  display: flex;
  gap: 16px;
  margin: 6px 0 0;
  padding: 0;
  border: 0;
}
.scope label,
.check {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--hit);
}
.scope input,
.check input {
  width: 20px;
  height: 20px;
  accent-color: var(--action);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.history {
  list-style: none;
  margin: 0;
  padding: 0;
}
.history li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 10px;
  padding: 6px 0;
  border-top: 1px solid var(--hairline);
}
.why {
  flex-basis: 100%;
  color: var(--quiet);
}
</style>
