<script setup lang="ts">
/** The sheet on paper: what was read, by whom and with what; what it says; what was decided and why; the drawings. */
import { computed } from 'vue'
import type { Cell } from '@/api'
import { decimalsOf, keyOf } from '@/features/bench'
import { EndView, OtherViews, sheetGeometry } from '@/features/drawing'
import { DIRECTION_WORDS } from '@/shared/directions'
import { day, mm, plain } from '@/shared/format'
import { inches } from '@/shared/inches'
import { useAtBench } from '@/shared/person'
import { usePaper } from './usePaper'
import { t } from '@/words/papers'

const props = defineProps<{ ticket: string }>()
const { bench, print, back } = usePaper(() => props.ticket)
const atBench = useAtBench()

const WIDTH = 700
const HEIGHT = 300
const sheet = computed(() => bench.sheet)
const geometry = computed(() =>
  sheetGeometry({
    width: WIDTH,
    left: 60,
    right: 60,
    strings: sheet.value?.instrument.string_names.length ?? 4,
    leftHanded: sheet.value?.instrument.left_handed ?? false,
    drawing: sheet.value?.drawing ?? null,
  }),
)
/** What was read, in the course of measuring. */
const read = computed(() =>
  (sheet.value?.cells ?? [])
    .filter((cell) => cell.value !== null)
    .sort((one, other) => one.turn - other.turn || (one.position ?? 0) - (other.position ?? 0)),
)
function figure(cell: Cell): string {
  const value = cell.value ?? 0
  const told = `${decimalsOf(cell) === 2 ? mm(value) : plain(value)} ${cell.unit}`
  return atBench.inches && cell.unit === 'mm' ? `${told} (${inches(value)})` : told
}
function sideOf(cell: Cell): string {
  if (cell.state === 'stale') return t('stale', { stale_because: cell.stale_because ?? '' })
  if (cell.state === 'doubted') return t('doubted')
  return { above: t('above'), below: t('below'), in_band: t('in_band'), none: '' }[cell.band?.side ?? 'none']
}
function band(cell: Cell): string {
  return cell.band ? t('to', { plain: plain(cell.band.low), plain2: plain(cell.band.high) }) : ''
}
const decided = computed(() => (sheet.value?.questions ?? []).filter((question) => question.decided !== null))
const today = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
</script>

<template>
  <div v-if="sheet">
    <div class="acts">
      <v-btn variant="flat" @click="print">{{ t('print') }}</v-btn>
      <v-btn @click="back">{{ t('back_to_measuring') }}</v-btn>
    </div>
    <main class="paper" :aria-label="t('sheet_on_paper')">
      <header class="head">
        <h1>{{ ticket }}</h1>
        <p>
          {{ sheet.instrument.family }} {{ sheet.instrument.size }}{{ sheet.instrument.left_handed ? ', left-handed' : '' }}<template v-if="sheet.instrument.owner">, {{ sheet.instrument.owner }}</template><br />
          {{ sheet.instrument.visit_label }}<template v-if="sheet.strings">; {{ sheet.strings.name }}</template>; {{ sheet.recipe.name }}
        </p>
        <p class="date">{{ today }}</p>
      </header>
      <p v-if="sheet.instrument.complaint">{{ sheet.instrument.complaint }}</p>
      <EndView v-if="sheet.drawing" :family="sheet.instrument.family" :drawing="sheet.drawing" :geometry="geometry" :width="WIDTH" :height="HEIGHT" :room="WIDTH - 120" :left-handed="sheet.instrument.left_handed" />
      <OtherViews view="side" :sheet="sheet" :width="WIDTH" :height="270" />
      <OtherViews view="plan" :sheet="sheet" :width="WIDTH" :height="240" />
      <section>
        <h2>{{ sheet.instruction.title }}</h2>
        <p v-for="line in sheet.instruction.says" :key="line">{{ line }}</p>
        <ol v-if="sheet.instruction.do.length"><li v-for="line in sheet.instruction.do" :key="line">{{ line }}</li></ol>
        <p v-if="sheet.instruction.caution"><b>{{ sheet.instruction.caution }}</b></p>
        <p v-for="found in sheet.findings" :key="found.says">{{ found.says }}</p>
      </section>
      <section v-if="decided.length">
        <h2>{{ t('decided') }}</h2>
        <p v-for="question in decided" :key="question.question">
          {{ question.title }}: <b>{{ question.decided?.label }}</b>, {{ question.decided?.by }}<template v-if="question.decided?.reason">: {{ question.decided.reason }}</template>
        </p>
      </section>
      <section>
        <h2>{{ t('readings') }}</h2>
        <p v-if="!read.length">{{ t('nothing_has_been_read_yet') }}</p>
        <table v-else>
          <thead><tr><th>{{ t('what') }}</th><th class="figure">{{ t('reading') }}</th><th>{{ t('target') }}</th><th></th><th>{{ t('with_by_when') }}</th></tr></thead>
          <tbody>
            <tr v-for="cell in read" :key="keyOf(cell)">
              <td>{{ cell.name }}</td>
              <td class="figure">{{ figure(cell) }}</td>
              <td>{{ band(cell) }}</td>
              <td>{{ sideOf(cell) }}</td>
              <td>{{ cell.tool }}<template v-if="cell.direction">, {{ DIRECTION_WORDS[cell.direction] }}</template><template v-if="cell.read">{{ ' ' }}{{ t('read', { typed: cell.typed, read: DIRECTION_WORDS[cell.read] }) }}</template>, {{ cell.taken_by }}, {{ cell.taken_at ? day(cell.taken_at) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </main>
  </div>
  <p v-else class="paper" role="status">{{ bench.failure || t('opening') }}</p>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.head {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8mm;
  align-items: baseline;
}
.head p,
section p {
  margin: 0 0 1mm;
}
.paper > :deep(svg) {
  display: block;
  max-width: 100%;
  height: auto;
  margin: 0 auto;
  break-inside: avoid;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 0.6mm 3mm 0.6mm 0;
  text-align: left;
  border-bottom: 0.2mm solid #aaa;
}
tr {
  break-inside: avoid;
}
td:not(:first-child, :last-child) {
  white-space: nowrap;
}
.figure {
  text-align: right;
  font-weight: 700;
  white-space: nowrap;
}
ol {
  margin: 0;
  padding-left: 6mm;
}
</style>
