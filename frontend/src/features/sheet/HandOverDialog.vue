<script setup lang="ts">
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
      <v-card-title tag="h2">Hand over {{ ticket }}?</v-card-title>
      <v-card-text>It leaves the list of instruments here. Its readings, works and decisions stay on record.</v-card-text>
      <v-card-actions class="acts">
        <v-btn @click="isOpen = false">Cancel</v-btn>
        <v-btn variant="flat" autofocus @click="send">Hand over</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.acts {
  padding: 8px 24px 20px;
}
</style>
