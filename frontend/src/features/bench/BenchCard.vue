<script setup lang="ts">
/** The bench card: a column for each string, under that string; single readings beside. */
import { computed } from 'vue'
import type { BenchSheet, Cell } from '@/api'
import type { SheetGeometry } from '@/features/drawing'
import { mm } from '@/shared/format'
import CardCell from './CardCell.vue'
import { directionOf } from '@/shared/directions'
import { decimalsOf, keyOf } from './places'
import { useBench } from './store'
import { useBeside } from './useBeside'
import type { Held } from './useHeld'
import { t } from '@/words/bench'

const props = defineProps<{
  sheet: BenchSheet
  geometry: SheetGeometry
  inHand: string
  /** What is said of a reading that leapt where it is in hand. */
  stop: string | null
  /** What was typed while it waits. */
  held: Held
  narrow: boolean
}>()
const emit = defineEmits<{
  pick: [key: string]
  draft: [text: string]
  key: [event: KeyboardEvent]
  keep: []
  suggested: []
  heldHere: []
  why: [name: string]
}>()

const bench = useBench()
const { besideOf } = useBeside()

interface Row {
  key: string
  label: string
  /** How the heights in it stand over the board, in words. */
  direction?: string
  cells?: Cell[]
  figures?: { why: string; text: string | null; provisional: boolean }[]
}

const rows = computed((): Row[] => {
  const of = (measure: string) => props.sheet.cells.filter((cell) => cell.measure === measure)
  const ends = of('end_height')
  const nuts = of('nut_height')
  return [
    { key: 'end_height', label: t('end_height'), direction: directionOf(ends), cells: ends },
    {
      key: 'wanted',
      label: props.sheet.recipe.heights_at_mark ? t('target_mark_height') : t('target_end_height'),
      figures: props.sheet.wanted_heights.map((wanted, i) => ({
        why: `wanted:${i}`,
        text: wanted === null ? null : mm(wanted),
        provisional: false,
      })),
    },
    { key: 'nut_height', label: t('nut_height'), direction: directionOf(nuts), cells: nuts },
    { key: 'slot_depth', label: t('slot_depth'), cells: of('slot_depth') },
    {
      key: 'down',
      label: t('string_drop_at_bridge'),
      figures: props.sheet.cut.strings.map((s, i) => ({
        why: `down:${i}`,
        text: s.drop === null ? null : mm(s.drop, 1),
        provisional: s.state === 'provisional',
      })),
    },
  ]
})
const singles = computed(() => props.sheet.cells.filter((cell) => cell.on_card && cell.position === null))

/** Screen order: mirrored for a left-handed instrument, so that a column stays under its string. */
const order = computed(() => {
  const positions = props.sheet.instrument.string_names.map((_, i) => i)
  return props.sheet.instrument.left_handed ? positions.reverse() : positions
})

function waitingOf(cell: Cell): string | null {
  const found = bench.waitingHere.filter(
    ({ body }) => body.measure === cell.measure && (body.position ?? null) === cell.position,
  )
  return found[found.length - 1]?.body.typed ?? null
}
/** The outermost of a row, as they stand on the screen. */
function edgeOf(cell: Cell): 'first' | 'last' | null {
  const across = cell.position === null ? singles.value.map((one) => one.measure) : order.value
  const index = across.findIndex((one) => one === (cell.position ?? cell.measure))
  const margin = cell.position === null ? 2 : 1
  if (index < margin) return 'first'
  return index >= across.length - margin ? 'last' : null
}
function cellProps(cell: Cell) {
  const place = bench.placeOf(cell)
  return {
    cell,
    inHand: keyOf(cell) === props.inHand,
    draft: bench.drafts[place] ?? '',
    refused: bench.refusals[place] ?? null,
    waiting: waitingOf(cell),
    places: decimalsOf(cell),
    beside: besideOf(cell),
    stop: keyOf(cell) === props.inHand ? props.stop : null,
    held: props.held,
    edge: edgeOf(cell),
  }
}
/** A bass's heights have five digits with their mark, and as many columns as it has strings. [px] */
const ROOM_FOR_LARGE = 98
const ROOM_FOR_SMALL = 80
const size = computed(() => {
  const { width = ROOM_FOR_LARGE } = props.geometry.columns[0] ?? {}
  return width >= ROOM_FOR_LARGE ? '' : width >= ROOM_FOR_SMALL ? 'tight' : 'tight tightest'
})
function columnStyle(position: number) {
  const column = props.geometry.columns[position]
  return column ? { left: `${column.left}px`, width: `${column.width}px` } : {}
}
</script>

<template>
  <div class="card" :class="[{ narrow }, size]" role="group" :aria-label="t('bench_card')">
    <div class="strings">
      <div class="row head" aria-hidden="true">
        <span v-for="i in order" :key="i" class="column name" :style="columnStyle(i)">{{ sheet.instrument.string_names[i] }}</span>
      </div>
      <div v-for="row in rows" :key="row.key" class="row" :class="row.key" role="group" :aria-label="[row.label, row.direction].filter(Boolean).join(', ')">
        <span class="label">{{ row.label }}<small v-if="row.direction">{{ row.direction }}</small></span>
        <template v-for="i in order" :key="i">
          <div class="column" :style="columnStyle(i)">
            <CardCell
              v-if="row.cells?.[i]"
              v-bind="cellProps(row.cells[i])"
              @pick="emit('pick', keyOf(row.cells[i]))"
              @draft="emit('draft', $event)"
              @key="emit('key', $event)"
              @keep="emit('keep')"
              @suggested="emit('suggested')"
              @held-here="emit('heldHere')"
            />
            <button
              v-else-if="row.figures?.[i]?.text"
              type="button"
              class="plain-button computed"
              :class="{ provisional: row.figures[i].provisional }"
              :aria-label="t('why_2', { string: sheet.instrument.string_names[i], row: row.label, figure: row.figures[i].text })"
              @click="emit('why', row.figures[i].why)"
            >
              {{ row.figures[i].text }}
            </button>
            <span v-else class="computed none">–</span>
          </div>
        </template>
      </div>
    </div>
    <div class="singles" role="group" :aria-label="t('single_readings')">
      <div v-for="cell in singles" :key="cell.measure" class="single">
        <span class="label">{{ cell.name }}</span>
        <CardCell
          v-bind="cellProps(cell)"
          @pick="emit('pick', keyOf(cell))"
          @draft="emit('draft', $event)"
          @key="emit('key', $event)"
          @keep="emit('keep')"
          @suggested="emit('suggested')"
          @held-here="emit('heldHere')"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.row {
  position: relative;
  height: 46px;
  border-top: 1px solid var(--hairline);
}
.row.head {
  height: 25px;
  border-top: 2px solid var(--ink);
}
.row.wanted,
.row.down {
  height: 34px;
}
.label {
  font-size: var(--type-text);
  line-height: 1.15;
}
.label small {
  display: block;
  font-size: var(--type-note);
  color: var(--quiet);
}
.narrow .label small {
  display: inline;
  margin-left: 8px;
}
.row .label {
  position: absolute;
  left: 16px;
  top: 50%;
  transform: translateY(-50%);
  width: 118px;
}
.wanted .label,
.down .label {
  font-size: var(--type-note);
  line-height: 1.1;
}
.column {
  position: absolute;
  top: 0;
}
.tight .column :deep(:is(.figure, input)) {
  font-size: var(--type-title);
  letter-spacing: -0.02em;
}
.tight .column :deep(.mark) {
  margin-left: 1px;
}
.tightest .column :deep(:is(.figure, input, .computed)),
.tightest .computed {
  font-size: var(--type-label);
  letter-spacing: -0.04em;
}
.tightest .column :deep(.mark) {
  margin-left: 0;
  font-size: 0.7rem;
}
.name {
  text-align: center;
  font-weight: 700;
  font-size: var(--type-label);
}
.computed {
  display: block;
  width: 100%;
  height: 33px;
  text-align: center;
  font-size: var(--type-title);
  line-height: 33px;
  color: var(--quiet);
}
.computed.provisional {
  font-style: italic;
}
.singles {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  border-top: 2px solid var(--ink);
}
.single {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  padding: 4px 2px 2px;
  border-left: 1px solid var(--hairline);
}
.single:first-child {
  border-left: 0;
}
.single .label {
  text-align: center;
  font-size: var(--type-note);
  color: var(--ink);
}
.single :deep(.figure),
.single :deep(input) {
  font-size: var(--type-title);
}
.narrow .row .label {
  position: static;
  display: block;
  transform: none;
  width: auto;
  padding: 3px 12px 0;
  font-size: var(--type-map);
}
.narrow .row {
  height: 70px;
}
.narrow .row.head {
  height: 26px;
}
.narrow .row.wanted,
.narrow .row.down {
  height: 62px;
}
.narrow .column {
  top: 22px;
}
.narrow .head .column {
  top: 0;
}
.narrow .singles {
  grid-auto-flow: row;
  grid-template-columns: 1fr 1fr;
}
</style>
