<script setup lang="ts">
import { t } from '@/words/sheet'

/** Asked before an instrument leaves. */
defineProps<{ ticket: string }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ handOver: [] }>()
function send(): void {
  isOpen.value = false
  emit('handOver')
}
</script>

<template>
  <v-dialog v-model="isOpen">
    <v-card>
      <v-card-title tag="h2">{{ t('hand_over', { ticket }) }}</v-card-title>
      <v-card-text>{{ t('it_leaves_the_list_of') }}</v-card-text>
      <v-card-actions class="acts">
        <v-btn @click="isOpen = false">{{ t('cancel') }}</v-btn>
        <v-btn variant="flat" autofocus @click="send">{{ t('hand_over_2') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.acts {
  padding: 8px 24px 20px;
}
</style>
