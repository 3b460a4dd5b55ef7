<script setup lang="ts">
/** The schools that this instrument follows, one for each measure; a choice acts at once. */
import type { BenchSheet } from '@/api'
import { useBench } from '@/features/bench'
import { focusChosen } from '@/shared/focus'

defineProps<{ sheet: BenchSheet }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()

const TITLES: Record<string, string> = {
  end_heights: "Heights at the board's end",
  nut_height: 'Height at the nut',
  crown: 'Crown',
  spacing: 'Spacing',
  slot_depth: 'Slot depth',
}
</script>

<template>
  <v-dialog v-model="isOpen" :scrim="false" max-width="384" content-class="schools-at-the-side" @after-enter="focusChosen">
    <v-card border>
      <v-card-title tag="h2">Schools</v-card-title>
      <v-card-text>
        <v-radio-group
          v-for="school in sheet.schools"
          :key="school.measure"
          density="compact"
          :model-value="school.chosen"
          :label="TITLES[school.measure] ?? school.measure"
          @update:model-value="void bench.chooseSchool(school.measure, String($event))"
        >
          <v-radio
            v-for="choice in school.choices"
            :key="choice.school"
            :value="choice.school"
            :label="choice.label"
          />
        </v-radio-group>
        <p>A choice acts at once: the cut beside shows what it changes. Two schools are never averaged.</p>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn variant="flat" @click="isOpen = false">Done</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.actions {
  padding: 8px 24px 16px;
}
p {
  margin-top: 12px;
}
</style>

<style>
/* Beside the drawing, not over it. */
.v-overlay__content.schools-at-the-side {
  position: fixed;
  left: auto;
  right: 8px;
  margin: 0;
}
</style>
