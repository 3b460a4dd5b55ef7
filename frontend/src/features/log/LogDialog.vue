<script setup lang="ts">
/** The log of this visit: every reading and work, newest first, whatever became of it. */
import { computed, ref, watch } from 'vue'
import { answerOf, api, type LogLine } from '@/api'
import { changed } from '@/shared/changes'
import { ago, dayAndYear } from '@/shared/format'
import { useLatest } from '@/shared/loaded'
import { t } from '@/words/log'

const props = defineProps<{ ticket: string; everyVisit?: boolean }>()
const isOpen = defineModel<boolean>({ required: true })
/** One for each visit, the newest first; of this visit alone without its heading. */
const visits = ref<{ heading: string; lines: LogLine[] }[]>([])
const isEmpty = computed(() => visits.value.every((visit) => !visit.lines.length))
const isLoading = ref(false)
const failure = ref('')
const latest = useLatest()

async function ask(): Promise<{ heading: string; lines: LogLine[] }[]> {
  const at = { params: { path: { ticket: props.ticket } } }
  if (!props.everyVisit) return [{ heading: '', lines: await answerOf(api.GET('/api/instruments/{ticket}/log', at)) }]
  const all = await answerOf(api.GET('/api/instruments/{ticket}/history/log', at))
  return all.map((visit) => ({ heading: `${dayAndYear(visit.opened_at)} · ${visit.label}`, lines: visit.lines }))
}
watch([isOpen, changed, () => props.ticket], async ([open, , ticket], [wasOpen, , wasTicket]) => {
  if (ticket !== wasTicket) visits.value = []
  if (!open) return
  isLoading.value = !wasOpen
  failure.value = ''
  await latest(ask, (found) => (visits.value = found), (message) => (failure.value = message), () => (isLoading.value = false))
})

function said(line: LogLine): string {
  return { current: '', doubted: t('doubted'), corrected: t('corrected_since'), 'taken back': t('taken_back'), work: '' }[line.state]
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="880">
    <v-card>
      <v-card-title tag="h2">{{ t('log_of', { ticket }) }}</v-card-title>
      <v-card-text>
        <v-progress-linear v-if="isLoading" indeterminate color="primary" />
        <p v-else-if="failure" role="alert">{{ failure }}</p>
        <p v-else-if="isEmpty">{{ t('nothing_is_written_down_yet') }}</p>
        <table v-else>
          <thead>
            <tr><th>{{ t('when') }}</th><th>{{ t('what') }}</th><th class="figure">{{ t('as_typed') }}</th><th>{{ t('by') }}</th><th>{{ t('now') }}</th></tr>
          </thead>
          <tbody v-for="(visit, n) in visits" :key="n">
            <tr v-if="visit.heading && visit.lines.length"><th colspan="5" class="visit">{{ visit.heading }}</th></tr>
            <tr v-for="(line, i) in visit.lines" :key="i" :class="line.state.replace(' ', '-')">
              <td>{{ ago(line.at) }}</td>
              <td>{{ line.what }}</td>
              <td class="figure">{{ line.value }}</td>
              <td>{{ [line.by, line.tool].filter(Boolean).join(', ') }}</td>
              <td>{{ said(line) }}</td>
            </tr>
          </tbody>
        </table>
      </v-card-text>
      <v-card-actions class="actions">
        <router-link :to="{ name: 'audit', params: { ticket } }" @click="isOpen = false">{{ t('audit_of_every_visit') }}</router-link>
        <v-btn variant="flat" autofocus @click="isOpen = false">{{ t('done') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--type-text);
}
th,
td {
  text-align: left;
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--hairline);
}
.figure,
td:first-child {
  white-space: nowrap;
}
.figure {
  text-align: right;
  font-weight: 700;
}
.corrected .figure,
.taken-back .figure {
  text-decoration: line-through;
  font-weight: 400;
}
.work td {
  border-bottom: 2px solid var(--ink);
}
.actions {
  padding: 8px 24px 20px;
}
.visit {
  padding-top: 12px;
  font-size: var(--type-text);
}
</style>
