<script setup lang="ts">
/** Templates at true size for a page's work, each as a file to print or to cut by. */
import { computed, ref } from 'vue'
import { answerOf, api, Refused } from '@/api'
import type { PageName } from '@/shared/pages'
import { t } from '@/words/pages'

const props = defineProps<{ ticket: string; page: PageName }>()
const OF_PAGE: Partial<Record<PageName, Record<string, string>>> = {
  bridge: { crown: t('crown_template'), bridge_strip: t('spacing_strip'), wedge_gauge: t('wedge_gauge') },
  nut: { nut_strip: t('spacing_strip'), nut_front: t('nut_from_its_front'), nut_floors: t('slot_floors') },
  bar: { card_gauge: t('card_gauge') },
}
const FORMS = { pdf: 'PDF', svg: 'SVG', dxf: 'DXF' }
const kinds = computed(() => OF_PAGE[props.page] ?? {})
const fault = ref('')

async function fetchFile(kind: string, form: string): Promise<void> {
  fault.value = ''
  try {
    const path = { ticket: props.ticket, kind, form }
    const blob = (await answerOf(api.GET('/api/instruments/{ticket}/templates/{kind}/{form}', { params: { path }, parseAs: 'blob' }))) as Blob
    const link = document.createElement('a')
    link.href = URL.createObjectURL(blob)
    link.download = `${props.ticket}-${kind}.${form}`
    link.click()
    URL.revokeObjectURL(link.href)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
  }
}
</script>

<template>
  <section v-if="Object.keys(kinds).length" :aria-label="t('templates_at_true_size')">
    <h2>{{ t('at_true_size') }}</h2>
    <div v-for="(label, kind) in kinds" :key="kind" class="line">
      <span>{{ label }}</span>
      <v-btn v-for="(words, form) in FORMS" :key="form" size="small" :aria-label="`${label}, ${words}`" @click="fetchFile(kind, form)">{{ words }}</v-btn>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
h2 {
  margin: 14px 0 2px;
  font-size: var(--type-text);
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: var(--hit);
}
.line span {
  flex: 1;
}
.fault {
  margin: 4px 0 0;
}
</style>
