<script setup lang="ts">
/** A work that was done away from the sheet's own buttons: written down, what it touches is measured again. */
import { ref, watch } from 'vue'
import type { Choices } from '@/api'
import { focusChosenInDialog } from '@/shared/focus'

defineProps<{ works: Choices['works'] }>()
const emit = defineEmits<{ done: [work: string] }>()
const isOpen = defineModel<boolean>({ required: true })
const chosen = ref('')

watch(isOpen, (open) => {
  if (open) chosen.value = ''
})
function done(): void {
  if (chosen.value === '') return
  isOpen.value = false
  emit('done', chosen.value)
}
</script>

<template>
  <v-dialog v-model="isOpen" @after-enter="focusChosenInDialog">
    <v-card>
      <v-card-title tag="h2">What was done?</v-card-title>
      <v-card-text>
        <form id="work-done" @submit.prevent="done">
          <v-radio-group v-model="chosen" hide-details @keydown.enter.prevent="done">
            <v-radio v-for="work in works" :key="work.key" :value="work.key" :label="work.label" />
          </v-radio-group>
          <p>What the work touches goes stale and is measured again; undo takes it back.</p>
        </form>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn variant="flat" type="submit" form="work-done" :disabled="chosen === ''">Write it down</v-btn>
        <v-btn @click="isOpen = false">Leave it</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
p {
  margin: 8px 0 0;
}
.actions {
  padding: 8px 24px 20px;
}
</style>
