<script setup lang="ts">
/** A card to print and to write on, for the day without a screen: every place of a measuring with its sketch. */
import { computed } from 'vue'
import type { Cell } from '@/api'
import { keyOf, useBeside } from '@/features/bench'
import { MeasureSketch } from '@/features/drawing'
import { COURSES, linesOf, placesOf, useCourse } from '@/features/measuring'
import { usePaper } from './usePaper'
import { t } from '@/words/papers'

const props = defineProps<{ ticket: string }>()
const { bench, print, back } = usePaper(() => props.ticket)
const { course, form } = useCourse()
const { besideOf } = useBeside()

const cells = computed(() => placesOf(bench.sheet?.cells ?? [], course.value, form.value))
const parts = computed(() =>
  [...new Set(cells.value.map((cell) => cell.part))].map((part) => ({ part, lines: linesOf(cells.value, part) })),
)
const isLeftHanded = computed(() => bench.sheet?.instrument.left_handed ?? false)
/** A left-handed instrument's strings stand mirrored, as on the screen. */
function seen(line: Cell[]): Cell[] {
  const names = bench.sheet?.instrument.string_names ?? []
  return isLeftHanded.value && line.length === names.length && line[0]?.place === names[0] ? [...line].reverse() : line
}
</script>

<template>
  <div v-if="bench.sheet">
    <div class="acts">
      <v-btn variant="flat" @click="print">{{ t('print') }}</v-btn>
      <v-btn @click="back">{{ t('back_to_measuring') }}</v-btn>
      <span>{{ t('what_stands_beside_it_on', { course: COURSES[course] }) }}</span>
    </div>
    <main class="paper" :aria-label="t('blank_card')">
      <header class="head">
        <h1>{{ ticket }}</h1>
        <p>
          {{ bench.sheet.instrument.family }} {{ bench.sheet.instrument.size }}{{ isLeftHanded ? ', left-handed' : '' }}<template v-if="bench.sheet.instrument.owner">, {{ bench.sheet.instrument.owner }}</template><template v-if="bench.sheet.strings">; {{ bench.sheet.strings.name }}</template>
        </p>
      </header>
      <p class="blanks"><span>{{ t('on') }}</span><i /><span>{{ t('at') }}</span><i /><span>{{ t('by') }}</span><i /><span>{{ t('heights_read_with') }}</span><i /></p>
      <div class="columns">
        <section v-for="one in parts" :key="one.part">
          <h2>{{ one.part }}</h2>
          <div v-for="line in one.lines" :key="line.measure" class="line" :class="{ single: line.cells.length === 1 }">
            <MeasureSketch class="sketch" :measure="line.measure" :position="line.cells[0]?.position ?? null" :left-handed="isLeftHanded" />
            <div class="said">
              <span><b>{{ line.label }}</b>{{ line.cells[0]?.unit === 'mm' ? '' : `, ${line.cells[0]?.unit}` }}</span>
              <div class="boxes" :class="{ many: line.cells.length > 5 }">
                <span v-for="cell in seen(line.cells)" :key="keyOf(cell)" class="place">
                  <span class="box"><small>{{ besideOf(cell) }}</small></span>
                  <small>{{ cell.place }}</small>
                </span>
              </div>
            </div>
          </div>
        </section>
      </div>
    </main>
  </div>
  <p v-else class="paper" role="status">{{ bench.failure || t('opening') }}</p>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: 8mm;
}
.head p,
.blanks {
  margin: 0;
}
.blanks {
  display: flex;
  gap: 2mm;
  padding-top: 5mm;
}
.blanks i {
  flex: 1;
  border-bottom: 0.3mm solid #000;
}
.columns {
  columns: 2;
  column-gap: 7mm;
}
h2 {
  margin-top: 2mm;
  break-after: avoid;
}
.line {
  display: flex;
  gap: 2mm;
  padding: 0.5mm 0;
  border-bottom: 0.2mm solid #aaa;
  break-inside: avoid;
}
.sketch {
  flex: none;
  width: 16mm;
  height: 9mm;
}
.said {
  flex: 1;
  min-width: 0;
  line-height: 1.15;
}
.single .said {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.boxes {
  display: flex;
  gap: 0.5mm 1.5mm;
}
.many {
  flex-wrap: wrap;
}
.many .place {
  flex: 0 0 auto;
}
.place {
  flex: 0 1 auto;
  display: grid;
  max-width: 22mm;
  line-height: 1;
}
.single .box {
  width: 14mm;
}
.box {
  width: 100%;
  min-width: 11mm;
  max-width: 14mm;
  height: 7mm;
  border: 0.3mm solid #000;
  display: flex;
  align-items: end;
  padding: 0 0.6mm;
}
small {
  font-size: 7pt;
}
</style>
