<script setup lang="ts">
/** What is seen of an instrument, item by item: arrows go from item to item, Space ticks a finding, each is kept at once. */
import { ref } from 'vue'
import { answerOf, api, Refused, type ItemView } from '@/api'
import { useBench } from '@/features/bench'
import { freshId } from '@/shared/id'

defineProps<{ items: ItemView[]; mayLook: boolean }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()
const failure = ref('')

const VERDICTS: Record<string, string> = { '': 'not yet', fine: 'fine', watch: 'watch', work: 'work needed', not_looked_at: 'not looked at' }

async function see(item: ItemView, findings: string[], verdict = ''): Promise<void> {
  failure.value = ''
  const body = { id: freshId(), findings, verdict, words: item.words }
  try {
    await bench.submit((ticket) =>
      answerOf(api.POST('/api/instruments/{ticket}/items/{item}/seen', { params: { path: { ticket, item: item.item } }, body })),
    )
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  }
}
function toggle(item: ItemView, finding: string): void {
  const there = item.findings.filter((row) => row.is_seen).map((row) => row.finding)
  void see(item, there.includes(finding) ? there.filter((name) => name !== finding) : [...there, finding])
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="760">
    <v-card>
      <v-card-title tag="h2">What is seen</v-card-title>
      <v-card-text>
        <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
        <div v-for="(item, i) in items" :key="item.item" class="item" role="group" :aria-label="item.item">
          <span class="verdict" :class="item.verdict"><b>{{ item.item }}</b><br />{{ VERDICTS[item.verdict] }}</span>
          <div class="findings">
            <label>
              <input type="checkbox" :autofocus="i === 0" :disabled="!mayLook" :checked="item.verdict === 'fine' && !item.findings.some((row) => row.is_seen)" @change="see(item, [], 'fine')" />
              fine
            </label>
            <label v-for="row in item.findings" :key="row.finding">
              <input type="checkbox" :disabled="!mayLook" :checked="row.is_seen" @change="toggle(item, row.finding)" />
              {{ row.label }}
            </label>
          </div>
        </div>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn variant="flat" @click="isOpen = false">Done</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.item {
  display: grid;
  grid-template-columns: 124px 1fr;
  gap: 0 12px;
  padding: 2px 0;
  border-top: 1px solid var(--hairline);
}
.verdict {
  color: var(--quiet);
  padding-top: 9px;
  line-height: 1.25;
}
.verdict b,
.verdict.work {
  color: var(--ink);
}
.findings {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  cursor: pointer;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.fault {
  color: var(--error);
  font-weight: 700;
}
.actions {
  padding: 8px 24px 20px;
}
@media (max-width: 640px) {
  .item {
    grid-template-columns: 1fr;
  }
}
</style>
