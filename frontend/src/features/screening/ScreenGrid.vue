<script setup lang="ts">
/**
 * Many instruments, a row each. An item is answered by its digit, a height by its figure and Enter; arrows go about,
 * Enter at an item opens what can be found there.
 */
import { computed, nextTick, ref } from 'vue'
import type { ScreenCell, ScreenColumn, ScreenRow } from '@/api'
import { VERDICTS, VERDICT_WORDS, VerdictMark } from '@/features/look'
import { plain } from '@/shared/format'
import { NEEDS, nextFitting } from './rows'
import ScreenDrawer from './ScreenDrawer.vue'
import { t } from '@/words/screening'

const TICK = -1

interface Waits {
  verdict?: string
  typed?: string
  refused?: string
}

const props = defineProps<{
  columns: ScreenColumn[]
  rows: ScreenRow[]
  mayAnswer: boolean
  /** What was answered and has not come back yet, or was refused. */
  waits: (ticket: string, column: ScreenColumn, cell: ScreenCell) => Waits
  draftOf: (ticket: string, cell: ScreenCell) => string
}>()
const ticked = defineModel<string[]>('ticked', { required: true })
const emit = defineEmits<{
  say: [ticket: string, item: string, said: { verdict: string; findings: string[]; words: string }]
  read: [row: ScreenRow, cell: ScreenCell, typed: string]
  draft: [ticket: string, cell: ScreenCell, text: string]
  at: [ticket: string, column: ScreenColumn | null]
}>()

const here = ref({ ticket: '', column: 0 })
const open = ref('')
const table = ref<HTMLElement | null>(null)
const first = computed(() => props.rows[0]?.ticket ?? '')

function isHere(ticket: string, column: number): boolean {
  return here.value.column === column && (here.value.ticket || first.value) === ticket
}
function go(row: number, column: number): void {
  const of = props.rows[row]
  if (!of || column < TICK || column >= props.columns.length) return
  open.value = ''
  here.value = { ticket: of.ticket, column }
  void nextTick(focusHere)
}
function focusHere(): void {
  const at = `${here.value.ticket}/${here.value.column}`
  const cell = table.value?.querySelector<HTMLElement>(`[data-at="${CSS.escape(at)}"]`)
  cell?.focus()
  if (cell instanceof HTMLInputElement) cell.select()
  cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}
function toNext(row: number, column: number): void {
  const next = nextFitting(props.rows[row]?.cells ?? [], column, 1)
  if (next < props.columns.length) go(row, next)
  else go(row + 1, nextFitting(props.rows[row + 1]?.cells ?? [], TICK, 1))
}
function arrow(key: string, row: number, column: number): void {
  if (key === 'ArrowUp' || key === 'ArrowDown') go(row + (key === 'ArrowDown' ? 1 : -1), column)
  if (key === 'ArrowRight' || key === 'ArrowLeft') go(row, nextFitting(props.rows[row]?.cells ?? [], column, key === 'ArrowRight' ? 1 : -1))
  if (key === 'Home') go(row, TICK)
  if (key === 'End') go(row, nextFitting(props.rows[row]?.cells ?? [], props.columns.length, -1))
}
const ARROWS = ['ArrowUp', 'ArrowDown', 'ArrowRight', 'ArrowLeft', 'Home', 'End']

function onItemKey(event: KeyboardEvent, row: number, column: number): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const of = props.rows[row]
  const item = props.columns[column]?.item
  const verdict = VERDICTS[Number(event.key) - 1]?.value
  if (ARROWS.includes(event.key)) {
    event.preventDefault()
    arrow(event.key, row, column)
  } else if (of && item && props.mayAnswer && (event.key === 'Enter' || verdict === 'not_looked_at')) {
    event.preventDefault()
    openDrawer(of.ticket, column, verdict ?? '')
  } else if (of && item && props.mayAnswer && verdict) {
    event.preventDefault()
    emit('say', of.ticket, item, { verdict, findings: [], words: '' })
    toNext(row, column)
  }
}
function onReadingKey(event: KeyboardEvent, row: number, column: number): void {
  const of = props.rows[row]
  const cell = of?.cells[column]
  const input = event.target as HTMLInputElement
  if (!of || !cell) return
  const isEdge = { ArrowLeft: input.selectionStart === 0, ArrowRight: input.selectionEnd === input.value.length }
  if (event.key === 'Enter') {
    event.preventDefault()
    if (input.value.trim()) emit('read', of, cell, input.value)
    toNext(row, column)
  } else if (ARROWS.includes(event.key) && (isEdge[event.key as 'ArrowLeft'] ?? true)) {
    event.preventDefault()
    arrow(event.key, row, column)
  }
}
function onTickKey(event: KeyboardEvent, row: number): void {
  if (!ARROWS.includes(event.key)) return
  event.preventDefault()
  arrow(event.key, row, TICK)
}
/** A figure begins with a digit, a decimal mark or a sign. */
function onInput(event: Event, ticket: string, cell: ScreenCell): void {
  const input = event.target as HTMLInputElement
  const text = input.value.replace(/^[^0-9.,+\-−]+/, '')
  if (text !== input.value) input.value = text
  emit('draft', ticket, cell, text)
}

const asked = ref('')
function openDrawer(ticket: string, column: number, verdict = ''): void {
  here.value = { ticket, column }
  asked.value = verdict
  open.value = `${ticket}/${column}`
}
function keepDrawer(row: number, said: { verdict: string; findings: string[]; words: string }): void {
  const of = props.rows[row]
  const column = here.value.column
  const item = props.columns[column]?.item
  open.value = ''
  if (of && item) emit('say', of.ticket, item, said)
  toNext(row, column)
}
function closeDrawer(): void {
  open.value = ''
  void nextTick(focusHere)
}
function onFocus(ticket: string, column: number): void {
  here.value = { ticket, column }
  emit('at', ticket, props.columns[column] ?? null)
}

function spoken(row: ScreenRow, column: ScreenColumn, cell: ScreenCell): string {
  if (!cell.fits) return t('has_none', { ticket: row.ticket, label: column.label })
  const { verdict, typed, refused } = props.waits(row.ticket, column, cell)
  const name = `${row.ticket} ${column.label}`
  if (column.item) {
    const found = cell.offered.filter((one) => cell.findings.includes(one.finding)).map((one) => one.label)
    return `${name}: ${[VERDICT_WORDS[verdict ?? cell.verdict] ?? 'blank', ...found, refused].filter(Boolean).join(', ')}`
  }
  const side = cell.side === 'in_band' ? t('in_band') : cell.side === 'above' ? t('above') : cell.side === 'below' ? t('below') : ''
  const value = typed ?? (cell.value === null ? t('not_measured') : plain(cell.value))
  return `${name}, ${cell.string}: ${[value, side, cell.doubt && 'doubted', refused && t('not_taken', { refused })].filter(Boolean).join(', ')}`
}
function verdictOf(row: ScreenRow, column: ScreenColumn, cell: ScreenCell): string {
  return props.waits(row.ticket, column, cell).verdict ?? cell.verdict
}
function shortOf(verdict: string): string {
  return VERDICTS.find((row) => row.value === verdict)?.short ?? ''
}
function figureOf(row: ScreenRow, column: ScreenColumn, cell: ScreenCell): string {
  return props.waits(row.ticket, column, cell).typed ?? (cell.value === null ? '' : plain(cell.value))
}

defineExpose({ begin: () => go(0, nextFitting(props.rows[0]?.cells ?? [], TICK, 1)), again: () => void nextTick(focusHere) })
</script>

<template>
  <table ref="table" role="grid" :aria-label="t('instruments_screened')" :style="{ '--columns': columns.length }">
    <thead>
      <tr>
        <th scope="col" class="who">{{ t('instrument') }}</th>
        <th v-for="column in columns" :key="column.column" scope="col">{{ column.label }}</th>
        <th scope="col" class="why">{{ t('needs') }}</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="(row, r) in rows" :key="row.ticket">
        <tr :class="{ here: here.ticket === row.ticket, [row.needs]: true }">
          <th scope="row" class="who">
            <label>
              <input
                v-model="ticked"
                type="checkbox"
                :value="row.ticket"
                :aria-label="t('tick', { ticket: row.ticket })"
                :data-at="`${row.ticket}/${TICK}`"
                :tabindex="isHere(row.ticket, TICK) ? 0 : -1"
                @focus="onFocus(row.ticket, TICK)"
                @keydown="onTickKey($event, r)"
              />
              <span><b>{{ row.ticket }}</b> {{ row.family }} {{ row.size }}<template v-if="row.left_handed">{{ t('left') }}</template></span>
            </label>
          </th>
          <td v-for="(cell, c) in row.cells" :key="cell.column" role="gridcell" :data-label="columns[c]?.label" :class="columns[c]?.item ? 'item' : 'height'">
            <span v-if="!cell.fits" class="none" :aria-label="columns[c] && spoken(row, columns[c], cell)">–</span>
            <div
              v-else-if="columns[c]?.item"
              class="answer"
              role="button"
              :class="[verdictOf(row, columns[c], cell) || 'blank', { refused: waits(row.ticket, columns[c], cell).refused }]"
              :data-at="`${row.ticket}/${c}`"
              :tabindex="isHere(row.ticket, c) ? 0 : -1"
              :aria-label="spoken(row, columns[c], cell)"
              :aria-expanded="open === `${row.ticket}/${c}`"
              @focus="onFocus(row.ticket, c)"
              @click="mayAnswer && openDrawer(row.ticket, c)"
              @keydown="onItemKey($event, r, c)"
            >
              <VerdictMark :verdict="verdictOf(row, columns[c], cell)" />
              <span>{{ shortOf(verdictOf(row, columns[c], cell)) }}</span>
            </div>
            <div v-else-if="columns[c]" class="figure" :class="[cell.side, { refused: waits(row.ticket, columns[c], cell).refused, doubted: cell.doubt }]">
              <input
                data-reading
                type="text"
                inputmode="decimal"
                autocomplete="off"
                :readonly="!mayAnswer"
                :data-at="`${row.ticket}/${c}`"
                :tabindex="isHere(row.ticket, c) ? 0 : -1"
                :aria-label="spoken(row, columns[c], cell)"
                :value="draftOf(row.ticket, cell)"
                :placeholder="figureOf(row, columns[c], cell) || cell.string"
                @focus="onFocus(row.ticket, c)"
                @input="onInput($event, row.ticket, cell)"
                @keydown="onReadingKey($event, r, c)"
              />
              <span v-if="cell.side === 'above'" class="mark" aria-hidden="true">▲</span>
              <span v-else-if="cell.side === 'below'" class="mark" aria-hidden="true">▼</span>
              <span v-else-if="cell.doubt" class="mark" aria-hidden="true">?</span>
            </div>
          </td>
          <td class="why"><b>{{ NEEDS[row.needs] }}</b><span v-if="row.because.length || row.heed.length">{{ [...row.because, ...row.heed].join(' · ') }}</span></td>
        </tr>
        <tr v-if="open.startsWith(`${row.ticket}/`) && row.cells[here.column]" class="drawer">
          <td :colspan="columns.length + 2" role="gridcell">
            <ScreenDrawer
              :cell="row.cells[here.column]!"
              :title="`${row.ticket} ${columns[here.column]?.label}`"
              :look="columns[here.column]?.look ?? ''"
              :verdict="asked"
              @keep="keepDrawer(r, $event)"
              @leave="closeDrawer"
            />
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped src="./grid.css"></style>
