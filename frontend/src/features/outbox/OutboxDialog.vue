<script setup lang="ts">
/** Everything that the server does not have yet: who entered it, where, why it waits; to correct, send again or drop. */
import { computed, reactive } from 'vue'
import { useOutbox, type Row } from '@/outbox'
import { ago } from '@/shared/format'
import { t } from '@/words/outbox'

const isOpen = defineModel<boolean>({ required: true })
const outbox = useOutbox()
const STATES = { waiting: t('waits'), held: t('waits_for_a_pin'), refused: t('not_accepted_2') }
/** What is put right in a row, by its id and field. */
const corrected = reactive<Record<string, string>>({})

/** Refused rows first: somebody has to do something about them. */
const rows = computed(() => [...outbox.refused, ...outbox.held, ...outbox.waiting])

/** The words of a row that can be put right here: those that were refused, else what was typed. */
function fieldsOf(row: Row): string[] {
  if (row.state !== 'refused' || typeof row.body !== 'object' || row.body === null) return []
  const body = row.body as Record<string, unknown>
  const named = Object.keys(row.fields).filter((name) => typeof body[name] === 'string')
  return named.length ? named : ['typed', 'reason', 'words'].filter((name) => typeof body[name] === 'string' && body[name] !== '')
}
function valueOf(row: Row, field: string): string {
  return corrected[`${row.id} ${field}`] ?? String((row.body as Record<string, unknown>)[field])
}
function again(row: Row): void {
  const changes = Object.fromEntries(fieldsOf(row).map((field) => [field, valueOf(row, field)]))
  void outbox.again(row, Object.keys(changes).length ? { ...(row.body as object), ...changes } : row.body)
}
async function save(row: Row): Promise<void> {
  const blob = await outbox.blobOf(row)
  if (!blob) return
  const address = URL.createObjectURL(blob)
  Object.assign(document.createElement('a'), { href: address, download: row.words }).click()
  URL.revokeObjectURL(address)
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="820">
    <v-card>
      <v-card-title tag="h2">{{ t('not_with_the_server_yet') }}</v-card-title>
      <v-card-text>
        <p v-if="!rows.length">{{ t('everything_was_sent') }}</p>
        <ul v-else :aria-label="t('what_waits')">
          <li v-for="row in rows" :key="row.order" :class="row.state">
            <p>
              <b>{{ row.ticket || t('the_door') }}</b> {{ row.words }}
              <span class="quiet">{{ row.by }}, {{ ago(row.at) }}, {{ STATES[row.state] }}</span>
            </p>
            <p v-if="row.says" class="says">{{ row.says }}</p>
            <form class="acts" @submit.prevent="again(row)">
              <label v-for="field in fieldsOf(row)" :key="field">{{ field }}<input class="plain-input" :value="valueOf(row, field)" @input="corrected[`${row.id} ${field}`] = ($event.target as HTMLInputElement).value" /></label>
              <v-btn v-if="row.state === 'refused'" type="submit" size="small">{{ t('send_again') }}</v-btn>
              <v-btn v-if="row.media" size="small" @click="save(row)">{{ t('save_the_file') }}</v-btn>
              <v-btn size="small" @click="outbox.drop(row)">{{ t('drop') }}</v-btn>
            </form>
          </li>
        </ul>
      </v-card-text>
      <v-card-actions class="end">
        <v-btn variant="flat" @click="isOpen = false">{{ t('close') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 8px 0;
  border-top: 1px solid var(--hairline);
}
p {
  margin: 0;
}
.quiet {
  color: var(--quiet);
  margin-left: 8px;
}
.says {
  color: var(--error);
  font-weight: 700;
}
.waiting .says,
.held .says {
  color: var(--ink);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  margin-top: 6px;
}
label {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
.end {
  padding: 8px 24px 20px;
}
</style>
