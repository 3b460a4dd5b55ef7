<script setup lang="ts">
/** Figures in rows and columns; a framed one is to be heeded. */
import type { PageTableData } from '@/api'
import { t } from '@/words/pages'

const props = defineProps<{ table: PageTableData }>()
const isMarked = (row: number, column: number) => props.table.marked.some(([r, c]) => r === row && c === column)
</script>

<template>
  <figure>
    <figcaption>{{ table.title }}</figcaption>
    <div class="wide" tabindex="0" role="group" :aria-label="table.title || t('table')" :class="{ dense: table.head.length > 10 }">
      <table>
        <thead><tr><th v-for="(cell, i) in table.head" :key="i" scope="col">{{ cell }}</th></tr></thead>
        <tbody>
          <tr v-for="(row, r) in table.rows" :key="r">
            <component :is="c === 0 ? 'th' : 'td'" v-for="(cell, c) in row" :key="c" :scope="c === 0 ? 'row' : undefined" :class="{ marked: isMarked(r, c), long: cell.length > 44 }">{{ cell }}</component>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="table.says">{{ table.says }}</p>
  </figure>
</template>

<style scoped>
figure {
  max-width: 100%;
  margin: 0;
}
figcaption {
  font-weight: 700;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  font-size: var(--type-text);
}
th,
td {
  padding: 5px 7px;
  border-bottom: 1px solid var(--hairline);
  text-align: right;
  white-space: nowrap;
  font-weight: 400;
}
th:first-child {
  padding-left: 0;
  text-align: left;
}
thead th {
  color: var(--quiet);
}
.dense table {
  font-size: var(--type-map);
}
.dense :is(th, td) {
  padding: 5px 4px;
}
th.marked:first-child {
  padding-left: 7px;
}
td.long {
  min-width: 240px;
  text-align: left;
  white-space: normal;
}
.marked {
  font-weight: 700;
  outline: 2px solid var(--ink);
  outline-offset: -3px;
}
p {
  margin: 4px 0 0;
  color: var(--quiet);
}
</style>
