<script setup lang="ts">
/** One reading on the card: what holds, or the input where it is in hand. */
import { computed } from 'vue'
import type { Cell } from '@/api'
import { firstFew, mm, plain } from '@/shared/format'
import type { Held } from './useHeld'
import { t } from '@/words/bench'

const props = defineProps<{
  cell: Cell
  inHand: boolean
  draft: string
  waiting: string | null
  refused: string | null
  places: number
  /** What stood here at another time, or is wanted, in words. */
  beside: string
  /** What leapt here and waits for a word; null for nothing. */
  stop?: string | null
  /** What was typed while it waits, for the places that follow. */
  held?: Held
  /** At an edge of the card what is said of it stands inward. */
  edge?: 'first' | 'last' | null
}>()
const emit = defineEmits<{ pick: []; draft: [text: string]; key: [event: KeyboardEvent]; keep: []; suggested: []; heldHere: [] }>()

/** A reading begins with a digit, a decimal mark or a sign; a bare letter does nothing by itself. */
function onInput(input: HTMLInputElement): void {
  const text = input.value.replace(/^[^0-9.,+\-−]+/, '')
  if (text !== input.value) input.value = text
  emit('draft', text)
}

/** A soft keyboard may send its Enter as a line break, and no key. */
function onBefore(event: InputEvent): void {
  if (event.inputType !== 'insertLineBreak') return
  event.preventDefault()
  emit('key', new KeyboardEvent('keydown', { key: 'Enter' }))
}

const figure = (value: number) => (props.places === 2 ? mm(value) : plain(value))
/** What nobody read needs no hundredths where a reading would have none. */
const rough = (value: number) => (props.places === 2 ? mm(value) : plain(Number(value.toFixed(1))))

const shown = computed(() => {
  if (props.waiting !== null) return { text: props.waiting, kind: 'waiting', word: t('waits') }
  if (props.refused !== null && props.draft) return { text: props.draft, kind: 'refused', word: t('not_saved') }
  if (props.draft) return { text: props.draft, kind: 'draft', word: t('not_saved') }
  const { state, value, assumed, told } = props.cell
  if (value !== null && state === 'doubted') return { text: plain(props.cell.doubt?.value ?? value), kind: 'doubted', word: t('doubted') }
  if (told !== null && state === 'stale') return { text: mm(told, 1), kind: 'told', word: t('derived') }
  if (value !== null && state === 'stale') return { text: figure(value), kind: 'stale', word: t('stale_2') }
  if (value !== null) return { text: figure(value), kind: 'taken', word: props.cell.simulated ? t('simulated') : '' }
  if (told !== null) return { text: mm(told, 1), kind: 'told', word: t('derived') }
  if (props.cell.is_last_visit && props.cell.last_time !== null) return { text: figure(props.cell.last_time), kind: 'told', word: t('last_visit') }
  if (assumed !== null) return { text: rough(assumed), kind: 'assumed', word: t('assumed') }
  return { text: '·', kind: 'missing', word: t('not_measured') }
})
const standing = computed(() => (['taken', 'told'].includes(shown.value.kind) ? (props.cell.band?.side ?? null) : null))
const mark = computed(() => ({ above: '▲', below: '▼', in_band: '' })[standing.value ?? 'in_band'])
const spoken = computed(() => {
  const side = standing.value === 'in_band' ? t('in_band') : standing.value === 'above' ? t('above') : standing.value === 'below' ? t('below') : ''
  return `${props.cell.name}: ${[shown.value.text, shown.value.word, side, props.beside].filter(Boolean).join(', ')}`
})
</script>

<template>
  <div class="cell" :class="[shown.kind, standing, { 'in-hand': inHand }]">
    <input
      v-if="inHand"
      data-reading
      type="text"
      inputmode="decimal"
      autocomplete="off"
      enterkeyhint="next"
      :aria-label="spoken"
      :value="draft"
      :placeholder="shown.kind === 'missing' ? '' : shown.text"
      @input="onInput($event.target as HTMLInputElement)"
      @keydown="emit('key', $event)"
      @beforeinput="onBefore($event as InputEvent)"
    />
    <button v-else type="button" class="plain-button figure" :aria-label="spoken" @click="emit('pick')">
      {{ shown.text }}<span v-if="mark" class="mark" aria-hidden="true">{{ mark }}</span>
      <span v-if="shown.kind === 'doubted'" class="mark" aria-hidden="true">?</span>
      <span v-if="shown.word && shown.kind !== 'missing' && shown.kind !== 'assumed'" class="word" aria-hidden="true">{{ shown.word }}</span>
      <span v-else-if="beside" class="word beside" aria-hidden="true">{{ beside }}</span>
      <span v-else-if="cell.count > 1 && shown.kind === 'taken'" class="word" aria-hidden="true">{{ t('apart', { count: cell.count, mm: mm(cell.repeat_spread), wide: cell.spread_is_wide ? ', wide' : '' }) }}</span>
    </button>
    <div v-if="inHand && stop" class="stop" :class="edge" role="alert">
      <p>{{ stop }}</p>
      <button type="button" class="plain-button" @mousedown.prevent @click="emit('keep')"><kbd>k</kbd> {{ t('keep') }}</button>
      <button v-if="waiting === null && (cell.doubt?.suggested ?? null) !== null" type="button" class="plain-button" @mousedown.prevent @click="emit('suggested')"><kbd>m</kbd> {{ t('take', { plain: plain(cell.doubt?.suggested ?? 0) }) }}</button>
      <button v-if="held?.entries.length" type="button" class="plain-button" @mousedown.prevent @click="emit('heldHere')"><kbd>r</kbd> {{ t('use_held_here', { held: held.entries[0] }) }}</button>
      <span class="anew"><kbd>Esc</kbd> {{ t('anew') }}</span>
      <p v-if="held && (held.entries.length || held.typing)" class="held">{{ t('held_for_the_next_places', { entries: [firstFew(held.entries), held.typing ? `${held.typing}…` : ''].filter(Boolean).join(' · ') }) }}</p>
    </div>
  </div>
</template>

<style scoped>
.cell {
  position: relative;
  height: 45px;
  min-width: var(--hit);
  border: 2px solid transparent;
  border-radius: var(--corner);
}
.figure,
input {
  width: 100%;
  height: 100%;
  font-size: var(--type-reading);
  font-weight: 700;
  letter-spacing: -0.01em;
  line-height: 1;
  text-align: center;
  color: var(--ink);
  font-family: inherit;
  font-variant-numeric: tabular-nums;
}
.figure {
  display: block;
  white-space: nowrap;
}
.figure:hover {
  background: var(--note);
}
input {
  background: var(--sheet);
  border: 0;
  outline: none;
  padding: 0;
}
input::placeholder {
  color: var(--ink);
  opacity: 1;
  font-weight: 400;
}
.stop {
  position: absolute;
  bottom: calc(100% + 6px);
  left: 50%;
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 18px;
  width: max-content;
  max-width: 330px;
  padding: 8px 14px 4px;
  transform: translateX(-50%);
  text-align: left;
  background: var(--sheet);
  border: 3px solid var(--error);
  border-radius: var(--corner);
  font-size: var(--type-text);
  line-height: 1.25;
}
.stop.first {
  left: 0;
  transform: none;
}
.stop.last {
  right: 0;
  left: auto;
  transform: none;
}
@media (max-width: 640px) {
  .stop,
  .stop:is(.first, .last) {
    position: fixed;
    inset: auto 8px 150px;
    width: auto;
    max-width: none;
    transform: none;
  }
}
.stop p {
  flex-basis: 100%;
  margin: 0;
}
.stop button {
  min-height: var(--hit);
  font-weight: 700;
}
.stop kbd {
  font: inherit;
  font-weight: 700;
  padding: 0 6px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.mark {
  font-size: var(--type-map);
  margin-left: 3px;
  vertical-align: 3px;
}
.above .figure {
  color: var(--above);
}
.below .figure {
  color: var(--below);
}
.word {
  position: absolute;
  left: 0;
  right: 0;
  bottom: -1px;
  font-size: var(--type-note);
  font-weight: 400;
  line-height: 1;
  color: var(--ink);
}
.cell:is(.waiting, .refused, .draft, .doubted, .stale, .told) .figure {
  padding-bottom: 9px;
  font-size: var(--type-title);
}
.stale {
  border: 2px dashed var(--ink);
}
.stale .word {
  bottom: 1px;
}
.cell.in-hand {
  border: 3px solid var(--action);
}
/* Assumed: as legible as any, and marked by a ring before it. */
.assumed .figure,
.missing .figure {
  font-weight: 400;
  color: var(--quiet);
}
.assumed .figure::before {
  content: '';
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 4px;
  vertical-align: 0.35em;
  border: 1.6px solid var(--ink);
  border-radius: 50%;
}
.draft .figure,
.waiting .figure {
  font-style: italic;
  font-weight: 400;
}
.refused .figure {
  color: var(--error);
  text-decoration: underline wavy;
  text-underline-offset: 3px;
}
/* Another time's figure stands under that of now. */
.beside {
  color: var(--ink);
}
.figure:has(.beside) {
  line-height: 28px;
  padding-bottom: 13px;
}
</style>
