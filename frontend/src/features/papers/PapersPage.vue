<script setup lang="ts">
/** Everything that goes out on paper, each as it will be printed; the same as a PDF opens beside it. */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, type PaperView } from '@/api'
import { useBench } from '@/features/bench'
import { useCommands } from '@/shared/commands'
import { useLoaded } from '@/shared/loaded'
import { usePageCommands } from '@/shared/pages'
import PaperBlocks from './PaperBlocks.vue'
import { t } from '@/words/papers'

const KINDS = {
  setup: t('set_up_sheet'),
  condition: t('condition'),
  compared: t('before_and_after'),
  owner: t('owners_page'),
  ticket: t('ticket'),
  label: t('label'),
} as const
type Kind = keyof typeof KINDS
const props = defineProps<{ ticket: string; kind: string }>()
const router = useRouter()
const bench = useBench()
const kind = computed<Kind>(() => (props.kind in KINDS ? (props.kind as Kind) : 'setup'))
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const { found: paper, failure } = useLoaded(
  () => `${props.ticket}/${kind.value}`,
  async () => (await answerOf(api.GET('/api/instruments/{ticket}/papers/{kind}', { params: { path: { ticket: props.ticket, kind: kind.value } } }))) as PaperView,
)
const pdf = computed(() => `/api/instruments/${encodeURIComponent(props.ticket)}/papers/${kind.value}/pdf`)
const size = computed(() => (paper.value ? { width: `${paper.value.size?.[0] ?? 210}mm`, minHeight: `${Math.min(paper.value.size?.[1] ?? 297, 297)}mm` } : {}))
const small = computed(() => (paper.value?.size?.[0] ?? 210) < 120)
const back = () => void router.push({ name: 'bench', params: { ticket: props.ticket } })
function another(by: 1 | -1): void {
  const names = Object.keys(KINDS) as Kind[]
  const next = names[(names.indexOf(kind.value) + by + names.length) % names.length] ?? 'setup'
  void router.replace({ name: 'paper', params: { ticket: props.ticket, kind: next } })
}
usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'd', own: true, words: t('open_as_pdf'), run: () => void window.open(pdf.value, '_blank') },
  { letter: 'x', own: true, words: t('another_paper'), run: () => another(1) },
  { letter: 'e', words: t('bench_sheet'), run: back },
])
</script>

<template>
  <div class="page">
    <nav class="kinds" :aria-label="t('papers_of', { ticket })">
      <router-link :to="{ name: 'bench', params: { ticket } }"><b>{{ ticket }}</b></router-link>
      <router-link v-for="(words, name) in KINDS" :key="name" :to="{ name: 'paper', params: { ticket, kind: name } }" :aria-current="name === kind ? 'page' : undefined">{{ words }}</router-link>
      <router-link :to="{ name: 'estimate', params: { ticket } }">{{ t('estimate') }}</router-link>
      <router-link :to="{ name: 'billing', params: { ticket } }">{{ t('invoice') }}</router-link>
      <router-link :to="{ name: 'working-sheet', params: { ticket } }">{{ t('working_sheet') }}</router-link>
      <router-link :to="{ name: 'blank', params: { ticket } }">{{ t('card_to_fill_in') }}</router-link>
      <span class="acts">
        <v-btn variant="flat" :href="pdf" target="_blank" :disabled="!paper">{{ t('open_as_pdf_2') }}</v-btn>
      </span>
    </nav>
    <p v-if="failure" class="paper" role="alert">{{ failure }}</p>
    <main v-else-if="paper" class="paper" :class="{ small }" :style="size" :aria-label="KINDS[kind]"><PaperBlocks :paper="paper" /></main>
    <p v-else class="paper" role="status">{{ t('opening') }}</p>
  </div>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 8px 16px;
}
.kinds > a {
  min-height: var(--hit);
  line-height: 44px;
  color: var(--action);
  text-decoration: none;
}
.kinds [aria-current='page'] {
  color: var(--ink);
  font-weight: 700;
  box-shadow: inset 0 -3px 0 var(--ink);
}
.acts {
  display: flex;
  gap: 8px;
  margin-left: auto;
  padding: 0;
}
.small {
  padding: 4mm;
}
@media print {
  .kinds {
    display: none;
  }
}
</style>
