<script setup lang="ts">
/** Every number as it is and as it would be; each opens to its why. */
import { computed, ref } from 'vue'
import type { PageConsequence } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ consequences: PageConsequence[] }>()
const opened = ref('')
const MARKS: Record<string, string> = { above: '▲', below: '▼' }
const WORDS: Record<string, string> = { above: t('above'), below: t('below'), in_band: t('in_band') }

const rows = computed(() =>
  props.consequences.map((one) => ({
    ...one,
    was: one.now === null ? '–' : mm(one.now, one.places),
    would: one.then === null ? '–' : mm(one.then, one.places),
    moves: one.now !== null && one.then !== null && Math.abs(one.now - one.then) >= 0.5 * 10 ** -one.places,
  })),
)
</script>

<template>
  <table v-if="rows.length" class="consequences">
    <thead>
      <tr><th scope="col"><span class="only-read">{{ t('what') }}</span></th><th scope="col">{{ t('now') }}</th><th scope="col">{{ t('then') }}</th><th scope="col">{{ t('target') }}</th></tr>
    </thead>
    <tbody>
      <template v-for="row in rows" :key="row.key">
        <tr :class="{ moves: row.moves, assumed: row.assumed }">
          <th scope="row">
            <button type="button" class="plain-button" :aria-expanded="opened === row.key" @click="opened = opened === row.key ? '' : row.key">{{ row.label }}</button>
          </th>
          <td>{{ row.was }}</td>
          <td class="then" :class="row.side">
            {{ row.would }}<span v-if="MARKS[row.side]" aria-hidden="true">{{ MARKS[row.side] }}</span>
            <span class="unit">{{ row.unit }}</span><span v-if="row.side" class="only-read">, {{ WORDS[row.side] }}</span>
          </td>
          <td class="band">{{ row.band }}</td>
        </tr>
        <tr v-if="opened === row.key" class="why">
          <td colspan="4"><p v-for="line in row.why" :key="line">{{ line }}</p></td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
.consequences {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 0 0 0 12px;
  border-bottom: 1px solid var(--hairline);
  text-align: right;
  white-space: nowrap;
}
thead th:nth-child(3) {
  padding-right: 3.2em;
}
thead th {
  font-weight: 400;
  color: var(--quiet);
}
tbody th {
  padding-left: 0;
  text-align: left;
  font-weight: 400;
  white-space: normal;
}
th button {
  min-height: 40px;
  width: 100%;
  line-height: 1.2;
}
td {
  font-size: var(--type-target);
}
.then {
  font-size: var(--type-title);
}
.moves .then {
  font-weight: 700;
}
.above {
  color: var(--above);
}
.below {
  color: var(--below);
}
.assumed td {
  font-style: italic;
}
.unit {
  display: inline-block;
  width: 3em;
  padding-left: 4px;
  text-align: left;
  font-size: var(--type-map);
  font-weight: 400;
  color: var(--quiet);
}
.band {
  font-size: var(--type-text);
  color: var(--quiet);
}
.why td {
  text-align: left;
  white-space: normal;
  font-size: var(--type-text);
  padding: 4px 0 8px;
}
.why p {
  margin: 0;
}
</style>
