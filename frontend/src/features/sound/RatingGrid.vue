<script setup lang="ts">
/** Digits from 1 to 5 for each string and for the whole: a digit goes on to the next, arrows move, Backspace empties. */
import { computed, ref } from 'vue'
import { STRING_QUALITIES, WHOLE_QUALITIES } from './words'
import { t } from '@/words/sound'

const props = defineProps<{ names: string[]; leftHanded: boolean; faults: Record<string, string> }>()
const rated = defineModel<Record<string, number>>({ required: true })
const said = ref('')
const root = ref<HTMLElement | null>(null)

/** The strings as they lie seen from the tailpiece, as on the card. */
const columns = computed(() => {
  const all = props.names.map((name, position) => ({ name, position }))
  return props.leftHanded ? all.reverse() : all
})
const rows = computed(() => STRING_QUALITIES.map((quality) => ({ quality, keys: columns.value.map(({ position }) => `${quality}/${position}`) })))
const inOrder = computed(() => [...WHOLE_QUALITIES, ...rows.value.flatMap(({ keys }) => keys)])

function labelOf(key: string): string {
  const [quality, position] = key.split('/')
  return position === undefined ? t('the_whole', { quality }) : t('of_the', { quality, number: props.names[Number(position)] })
}
function go(key: string, by: number): void {
  const next = inOrder.value[inOrder.value.indexOf(key) + by]
  if (next) root.value?.querySelector<HTMLInputElement>(`[data-key="${next}"]`)?.focus()
}
function set(key: string, value: number | null): void {
  const others = Object.fromEntries(Object.entries(rated.value).filter(([name]) => name !== key))
  rated.value = value === null ? others : { ...others, [key]: value }
  said.value = ''
}
const MOVES: Record<string, (key: string) => number> = {
  ArrowRight: () => 1,
  ArrowLeft: () => -1,
  Enter: () => 1,
  ArrowDown: (key) => (key.includes('/') ? columns.value.length : WHOLE_QUALITIES.length - inOrder.value.indexOf(key)),
  ArrowUp: (key) => (key.includes('/') ? -columns.value.length : 0),
}
function onKey(event: KeyboardEvent, key: string): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const by = MOVES[event.key]
  if (by) {
    event.preventDefault()
    go(key, by(key))
  } else if (event.key === 'Backspace' || event.key === 'Delete') {
    event.preventDefault()
    set(key, null)
  } else if (/^\d$/.test(event.key)) {
    event.preventDefault()
    rate(key, Number(event.key))
  } else if (event.key.length === 1 && event.key !== ' ') event.preventDefault()
}
function rate(key: string, value: number): void {
  if (value < 1 || value > 5) {
    said.value = t('goes_from_1_to_5', { label_of: labelOf(key), value })
    return
  }
  set(key, value)
  go(key, 1)
}
/** A soft keyboard, or dictation, sends words and no keys. */
function onInput(event: Event, key: string): void {
  const input = event.target as HTMLInputElement
  const typed = /\d(?=\D*$)/.exec(input.value)?.[0]
  if (typed === undefined) set(key, null)
  else rate(key, Number(typed))
  input.value = String(rated.value[key] ?? '')
}
defineExpose({ focus: () => root.value?.querySelector<HTMLInputElement>('input')?.focus() })
</script>

<template>
  <div ref="root">
    <p class="scale">{{ t('n_1_hardly_any_5_all') }}</p>
    <div class="whole">
      <label v-for="quality in WHOLE_QUALITIES" :key="quality"><span>{{ quality }}</span>
        <input :data-key="quality" :value="rated[quality] ?? ''" inputmode="numeric" maxlength="1" autocomplete="off" :aria-label="labelOf(quality)" @keydown="onKey($event, quality)" @input="onInput($event, quality)" @focus="($event.target as HTMLInputElement).select()" />
      </label>
    </div>
    <table>
      <thead><tr><th></th><th v-for="one in columns" :key="one.position" scope="col">{{ one.name }}</th></tr></thead>
      <tbody>
        <tr v-for="row in rows" :key="row.quality">
          <th scope="row">{{ row.quality }}</th>
          <td v-for="key in row.keys" :key="key">
            <input :data-key="key" :value="rated[key] ?? ''" inputmode="numeric" maxlength="1" autocomplete="off" :aria-label="labelOf(key)" @keydown="onKey($event, key)" @input="onInput($event, key)" @focus="($event.target as HTMLInputElement).select()" />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="said" class="fault" role="alert">{{ said }}</p>
    <p v-for="(fault, key) in faults" :key="key" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.scale {
  margin: 0 0 6px;
  color: var(--quiet);
  font-size: var(--type-map);
}
.whole {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin-bottom: 6px;
}
.whole span {
  display: block;
}
input {
  width: 100%;
  max-width: 56px;
  height: 44px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: var(--type-title);
  font-weight: 700;
  text-align: center;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 2px 8px 2px 0;
  font-weight: 400;
  text-align: left;
}
thead th {
  padding-left: 20px;
}
tbody th {
  width: 78px;
}
.fault {
  margin: 4px 0 0;
}
</style>
