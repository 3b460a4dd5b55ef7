<script setup lang="ts">
/** A document as it was issued, on the screen as on paper. */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, type PaperView } from '@/api'
import { useBench } from '@/features/bench'
import { PaperBlocks } from '@/features/papers'
import { useCommands } from '@/shared/commands'
import { useLoaded } from '@/shared/loaded'
import { t } from '@/words/billing'

const props = defineProps<{ ticket: string; document: string }>()
const router = useRouter()
const bench = useBench()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const { found: paper, failure } = useLoaded(
  () => `${props.ticket}/${props.document}`,
  async () => (await answerOf(api.GET('/api/instruments/{ticket}/billing/documents/{document_id}', { params: { path: { ticket: props.ticket, document_id: props.document } } }))) as PaperView,
)
const pdf = computed(() => `/api/instruments/${encodeURIComponent(props.ticket)}/billing/documents/${props.document}.pdf`)
const back = () => void router.push({ name: 'billing', params: { ticket: props.ticket } })
useCommands([
  { letter: 'd', own: true, words: t('open_as_pdf_letter'), run: () => void window.open(pdf.value, '_blank') },
  { letter: 'e', own: true, words: t('back'), run: back },
])
</script>

<template>
  <div>
    <div class="acts">
      <v-btn variant="flat" :href="pdf" target="_blank">{{ t('open_as_pdf') }}</v-btn>
      <v-btn @click="back">{{ t('back') }}</v-btn>
    </div>
    <p v-if="failure" class="paper" role="alert">{{ failure }}</p>
    <main v-else-if="paper" class="paper" :aria-label="paper.title"><PaperBlocks :paper="paper" /></main>
    <p v-else class="paper" role="status">{{ t('opening') }}</p>
  </div>
</template>

<style scoped src="../papers/paper.css"></style>
