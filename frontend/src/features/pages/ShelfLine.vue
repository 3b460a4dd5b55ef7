<script setup lang="ts">
/** A short list of what the shop has on hand, and its change: sizes as typed, with spaces between. */
import { computed, nextTick, ref } from 'vue'
import { type Family, answerOf, api, Refused } from '@/api'
import { plain } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useLoaded } from '@/shared/loaded'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/pages'

const props = defineProps<{ family: string; list: string }>()
const emit = defineEmits<{ changed: [] }>()
const atBench = useAtBench()
const isOpen = ref(false)
const typed = ref('')
const fault = ref('')
const field = ref<HTMLInputElement | null>(null)
const path = computed(() => ({ family: props.family as Family }))

const { found: lists, failure, load } = useLoaded(() => path.value.family, (family) => answerOf(api.GET('/api/shelf/{family}', { params: { path: { family } } })))
const found = computed(() => lists.value?.find((one) => one.name === props.list) ?? null)
const words = computed(() => found.value?.values.map(plain).join('  ') || 'none')
function open(): void {
  typed.value = found.value?.values.map(plain).join(' ') ?? ''
  fault.value = ''
  isOpen.value = true
  void nextTick(() => field.value?.focus())
}
async function save(): Promise<void> {
  const body = { id: freshId(), values: typed.value.split(/[\s;]+/).filter(Boolean) }
  try {
    await answerOf(api.PUT('/api/shelf/{family}/{name}', { params: { path: { ...path.value, name: props.list } }, body }))
    isOpen.value = false
    await load()
    emit('changed')
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
  }
}
</script>

<template>
  <form v-if="found" class="shelf" @submit.prevent="save">
    <span>{{ t('on_hand', { label: found.label }) }}</span>
    <template v-if="isOpen">
      <input ref="field" v-model="typed" :aria-label="found.label" autocomplete="off" @keydown.esc.stop="isOpen = false" />
      <v-btn type="submit" size="small" variant="flat">{{ t('save') }}</v-btn>
      <v-btn size="small" @click="isOpen = false">{{ t('cancel') }}</v-btn>
    </template>
    <template v-else>
      <b>{{ words }}</b>
      <v-btn v-if="atBench.may('recipes')" size="small" @click="open">{{ t('change') }}</v-btn>
    </template>
    <p v-if="fault || failure" class="fault" role="alert">{{ fault || failure }}</p>
  </form>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
b {
  white-space: pre-wrap;
}
input {
  flex: 1 1 240px;
  min-height: var(--hit);
  padding: 0 10px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.fault {
  flex-basis: 100%;
  margin: 0;
}
</style>
