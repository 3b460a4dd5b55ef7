<script setup lang="ts">
/** What goes into a work, from the drawers: found while typing, with its price and how many are free. */
import { ref } from 'vue'
import { answerOf, api, type Family } from '@/api'
import { useLoaded } from '@/shared/loaded'
import { t } from '@/words/plan'

const props = defineProps<{ kind: string; label: string; family: Family }>()
const emit = defineEmits<{ use: [item: string, count: string] }>()
const chosen = ref('')
const count = ref('1')
const { found: items, failure } = useLoaded(
  () => `${props.kind}/${props.family}`,
  () => answerOf(api.GET('/api/stock', { params: { query: { kind: props.kind, family: props.family, words: '' } } })),
  (all) => (chosen.value = all[0]?.id ?? ''),
)
</script>

<template>
  <form class="picker" @submit.prevent="chosen && emit('use', chosen, count)">
    <template v-if="items?.length">
      <label class="item">{{ label }}
        <select v-model="chosen" class="entry">
          <option v-for="one in items" :key="one.id" :value="one.id">{{ [one.label, one.figure, one.price || t('no_price_yet'), t('free', { count: one.free })].filter(Boolean).join(', ') }}</option>
        </select>
      </label>
      <label class="count">{{ t('how_many') }} <input v-model="count" class="entry" inputmode="decimal" autocomplete="off" /></label>
      <v-btn type="submit" size="small">{{ t('reserve') }}</v-btn>
    </template>
    <p v-else-if="!failure">{{ t('no_in_the_drawers', { label }) }} <router-link :to="{ name: 'drawers', query: { kind } }">{{ t('put_one_in') }}</router-link></p>
    <p v-if="failure" role="alert">{{ failure }}</p>
  </form>
</template>

<style scoped>
.picker {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--space-2) var(--space-3);
}
.item {
  flex: 1 1 220px;
  display: grid;
}
.count {
  display: grid;
  width: 5rem;
}
p {
  margin: 0;
}
</style>
