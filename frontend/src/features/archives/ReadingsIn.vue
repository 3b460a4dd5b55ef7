<script setup lang="ts">
/** Readings from a spreadsheet: each line says what it would become before any is kept. */
import { computed, ref } from 'vue'
import { answerOf, api, Refused, type ReadingsTable } from '@/api'
import { t } from '@/words/archives'

const ENCODINGS = [
  { value: 'utf-8', label: t('utf_8') },
  { value: 'utf-16', label: t('utf_16') },
  { value: 'windows-1252', label: t('windows_1252') },
]
const SEPARATORS = [
  { value: ',', label: t('comma') },
  { value: ';', label: t('semicolon') },
  { value: '\t', label: t('tab') },
]
const file = ref<File | null>(null)
const ticket = ref('')
const encoding = ref('')
const separator = ref('')
const leaveOut = ref(false)
const table = ref<ReadingsTable | null>(null)
const failure = ref('')
const isSending = ref(false)
const bad = computed(() => table.value?.lines.filter((line) => line.problem).length ?? 0)
const fresh = computed(() => (table.value?.lines ?? []).filter((line) => !line.problem && !line.is_here).length)

/** The newest question alone is answered: another table may have been chosen meanwhile. */
let asked = 0
async function ask(take_in: boolean): Promise<void> {
  if (!file.value || (take_in && isSending.value)) return
  const mine = ++asked
  isSending.value = true
  failure.value = ''
  try {
    const found = await answerOf(
      api.POST('/api/readings-table', {
        params: { query: { ticket: ticket.value.trim(), encoding: encoding.value, separator: separator.value, take_in, leave_out_bad: leaveOut.value } },
        body: file.value as never,
        bodySerializer: (body: unknown) => body as Blob,
        headers: { 'content-type': 'text/csv' },
      }),
    )
    if (mine === asked) table.value = found
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine !== asked) return
    failure.value = error.message
    if (!take_in) table.value = null
  } finally {
    if (mine === asked) isSending.value = false
  }
}
function chosen(event: Event): void {
  file.value = (event.target as HTMLInputElement).files?.[0] ?? null
  table.value = null
  if (file.value) void ask(false)
}
</script>

<template>
  <section :aria-label="t('readings_from_a_table')">
    <h2>{{ t('readings_from_a_table_2') }}</h2>
    <p>{{ t('a_csv_with_the_columns') }}</p>
    <div class="asks">
      <input type="file" accept=".csv,text/csv,text/plain" :aria-label="t('table_of_readings')" @change="chosen" />
      <label>{{ t('ticket_where_a_line_names') }} <input v-model="ticket" class="entry" maxlength="20" @change="ask(false)" /></label>
      <label>{{ t('encoding') }} <select v-model="encoding" class="entry" @change="ask(false)"><option value="">{{ t('as_found') }}</option><option v-for="one in ENCODINGS" :key="one.value" :value="one.value">{{ one.label }}</option></select></label>
      <label>{{ t('separator') }} <select v-model="separator" class="entry" @change="ask(false)"><option value="">{{ t('as_found') }}</option><option v-for="one in SEPARATORS" :key="one.value" :value="one.value">{{ one.label }}</option></select></label>
    </div>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    <template v-if="table">
      <p role="status"><b>{{ table.taken_in ? t('readings_were_taken_in', { count: table.good }) : t('of_lines_can_be_taken', { good: table.good, all: table.lines.length }) }}</b> {{ t('read_as_with', { encoding: table.encoding, separator: table.separator }) }}<template v-if="table.ignored.length">; {{ t('not_used', { columns: table.ignored.join(', ') }) }}</template></p>
      <div class="scrolls">
        <table>
          <thead><tr><th>{{ t('line') }}</th><th>{{ t('ticket') }}</th><th>{{ t('what') }}</th><th class="figure">{{ t('value') }}</th><th>{{ t('says') }}</th></tr></thead>
          <tbody>
            <tr v-for="line in table.lines" :key="line.number" :class="{ bad: line.problem }">
              <td>{{ line.number }}</td><td>{{ line.ticket }}</td><td>{{ line.what }}</td><td class="figure">{{ line.value }}</td>
              <td>{{ line.problem || (line.is_here ? t('taken_in_before') : line.doubt) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-if="!table.taken_in" class="acts">
        <label v-if="bad"><input v-model="leaveOut" type="checkbox" /> {{ t('leave_out_the_other_that', { count: bad }) }}</label>
        <v-btn variant="flat" :disabled="!fresh || (bad > 0 && !leaveOut)" :loading="isSending" @click="ask(true)">{{ t('take_in_other', { count: fresh }) }}</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 24px 0 4px;
  font-size: var(--type-label);
}
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
}
.asks .entry {
  width: auto;
  max-width: 140px;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
}
.scrolls {
  max-height: 360px;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--quiet);
}
td {
  padding: 4px 10px 4px 0;
  border-top: 1px solid var(--hairline);
}
.figure {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.bad td:last-child {
  color: var(--error);
  font-weight: 700;
}
.acts {
  display: flex;
  justify-content: flex-end;
  gap: 20px;
  margin-top: 12px;
}
</style>
