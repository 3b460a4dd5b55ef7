<script setup lang="ts">
/** Who changed what and when: of the house, or of one instrument over all its visits. Nothing is changed here. */
import { computed, ref, watch } from 'vue'
import { answerOf, api, type AuditLine } from '@/api'
import { moment } from '@/shared/format'
import { useLatest } from '@/shared/loaded'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/audit'

const props = defineProps<{ ticket: string }>()
const atBench = useAtBench()
const lines = ref<AuditLine[] | null>(null)
const hasMore = ref(false)
const words = ref('')
const failure = ref('')
const isLoading = ref(false)
/** As many lines as the house's audit gives at once: where it gave fewer, there are no more. */
const AT_ONCE = 500

const latest = useLatest()
async function load(before: number | null = null): Promise<void> {
  isLoading.value = true
  failure.value = ''
  const { ticket } = props
  await latest(
    (): Promise<AuditLine[]> =>
      ticket
        ? answerOf(api.GET('/api/instruments/{ticket}/audit', { params: { path: { ticket } } }))
        : answerOf(api.GET('/api/audit', { params: { query: before === null ? {} : { before } } })),
    (found) => {
      lines.value = before === null ? found : [...(lines.value ?? []), ...found]
      hasMore.value = !ticket && found.length === AT_ONCE
    },
    (message) => (failure.value = message),
    () => (isLoading.value = false),
  )
}
watch(() => props.ticket, () => {
  lines.value = null
  words.value = ''
  void load()
}, { immediate: true })

const shown = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (lines.value ?? []).filter((line) => {
    const text = [line.label, line.subject, line.ticket, line.change, line.by, line.browser].join(' ').toLowerCase()
    return wanted.every((word) => text.includes(word))
  })
})
</script>

<template>
  <main class="page" :aria-label="ticket ? t('audit_of', { ticket }) : t('audit')">
    <header>
      <h1>{{ ticket ? t('audit_2', { ticket }) : t('audit_of_the_house') }}</h1>
      <router-link v-if="ticket" :to="{ name: 'bench', params: { ticket } }">{{ t('sheet_of', { ticket }) }}</router-link>
      <router-link v-if="ticket && atBench.may('sign_off')" :to="{ name: 'audit' }">{{ t('audit_of_the_house') }}</router-link>
      <v-text-field v-model="words" :label="t('find')" density="compact" hide-details class="find" autocomplete="off" />
    </header>
    <p v-if="failure" role="alert" class="failure">{{ failure }} <v-btn size="small" @click="load()">{{ t('try_again') }}</v-btn></p>
    <p v-else-if="lines === null" role="status">{{ t('loading') }}</p>
    <p v-else-if="!lines.length">{{ t('nothing_has_been_changed_yet') }}</p>
    <p v-else-if="!shown.length">{{ t('no_line_has_these_words') }}</p>
    <table v-else>
      <thead>
        <tr><th>{{ t('when') }}</th><th>{{ t('act') }}</th><th>{{ t('what') }}</th><th>{{ t('change') }}</th><th>{{ t('by') }}</th></tr>
      </thead>
      <tbody>
        <tr v-for="(line, i) in shown" :key="line.number ?? i">
          <td class="when">{{ moment(line.at) }}</td>
          <td>{{ line.label }}</td>
          <td>
            <router-link v-if="line.ticket && !ticket" :to="{ name: 'audit', params: { ticket: line.ticket } }">{{ line.ticket }}</router-link>
            <template v-else>{{ line.subject }}</template>
          </td>
          <td>{{ line.change }}</td>
          <td>{{ line.by }}<span v-if="line.browser" class="quiet"> · {{ line.browser }}</span></td>
        </tr>
      </tbody>
    </table>
    <v-btn v-if="hasMore" :loading="isLoading" class="more" @click="load(lines?.at(-1)?.number ?? null)">{{ t('show_older') }}</v-btn>
  </main>
</template>

<style scoped src="@/shared/list.css" />
<style scoped>
.page {
  margin: 10px 16px 64px;
  padding: 14px 18px 18px;
  background: var(--sheet);
  border-radius: var(--corner);
  font-size: var(--type-text);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  margin-bottom: 8px;
}
h1 {
  font-size: var(--type-title);
  margin: 0;
}
.find {
  max-width: 280px;
  margin-left: auto;
}
a {
  color: inherit;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
.when {
  white-space: nowrap;
}
.quiet {
  color: var(--quiet);
}
.failure {
  color: var(--error);
  font-weight: 700;
}
.more {
  margin-top: 12px;
}
@media (max-width: 640px) {
  .page {
    margin: 4px 8px 64px;
    padding: 10px;
  }
  tr {
    display: grid;
    grid-template-columns: 1fr 1fr;
    padding: 6px 0;
    border-top: 1px solid var(--hairline);
  }
  thead {
    display: none;
  }
  th,
  td {
    height: auto;
    border: 0;
  }
}
</style>
