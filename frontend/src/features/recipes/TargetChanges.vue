<script setup lang="ts">
/** What a choice would change, in numbers, before it is taken. */
import { computed } from 'vue'
import type { TargetChange } from '@/api'
import { mm, plain } from '@/shared/format'
import { t } from '@/words/recipes'

const props = withDefaults(
  defineProps<{ changes: TargetChange[]; same: number; before?: string; after?: string }>(),
  { before: () => t('now'), after: () => t('then') },
)

const parts = computed(() => {
  const found = new Map<string, TargetChange[]>()
  for (const change of props.changes) found.set(change.part, [...(found.get(change.part) ?? []), change])
  return [...found].map(([part, of]) => ({ part, of }))
})
function said(change: TargetChange, value: number | null): string {
  if (value === null) return t('none')
  return change.unit === 'mm' ? mm(value, placesOf(change)) : plain(value)
}
/** Cuts are said to a tenth, as everywhere. */
function placesOf(change: TargetChange): number {
  return change.key.startsWith('wood:') ? 1 : 2
}
function way(change: TargetChange): string {
  if (change.before === null || change.after === null) return ''
  const by = change.after - change.before
  return `${by > 0 ? '+' : ''}${mm(by, placesOf(change))}`
}
</script>

<template>
  <p v-if="!changes.length">{{ t('nothing_changes_in_numbers_what') }}</p>
  <table v-else>
    <thead>
      <tr><th class="only-read">{{ t('what') }}</th><th>{{ before }}</th><th>{{ after }}</th><th><span class="only-read">{{ t('difference') }}</span></th></tr>
    </thead>
    <tbody v-for="group in parts" :key="group.part">
      <tr v-for="change in group.of" :key="change.key" :title="change.source">
        <th scope="row">{{ change.label }}</th>
        <td>{{ said(change, change.before) }}</td>
        <td class="then">{{ said(change, change.after) }}</td>
        <td class="way">{{ way(change) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="changes.length" class="same">{{ t('targets_stay_as_they_are', { same }) }}</p>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--type-text);
}
thead th {
  font-weight: 400;
  color: var(--quiet);
  text-align: right;
}
th[scope='row'] {
  font-weight: 400;
  text-align: left;
  line-height: 1.15;
}
tbody {
  border-top: 2px solid var(--hairline);
}
td {
  padding: 5px 0 5px 8px;
  text-align: right;
  white-space: nowrap;
}
.then {
  font-weight: 700;
  font-size: var(--type-label);
}
.way {
  color: var(--quiet);
}
.same {
  margin: 8px 0 0;
  color: var(--quiet);
}
</style>
