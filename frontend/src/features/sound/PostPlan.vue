<script setup lang="ts">
/** Both ends of the post from above, beside each other, and the place that is chosen in them. */
import { ref, watch } from 'vue'
import type { SoundView } from '@/api'
import EndPlan from './EndPlan.vue'
import PlaceHeard from './PlaceHeard.vue'
import PostSection from './PostSection.vue'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; leftHanded: boolean; mayAct: boolean; width: number; height: number; withSection?: boolean }>()
const emit = defineEmits<{ back: [place: number] }>()
const selected = ref(props.view.now)
watch(() => props.view.now, (now) => (selected.value = now))
defineExpose({ select: (place: number) => (selected.value = place) })
</script>

<template>
  <div class="plans">
    <EndPlan :view="view" end="top" :left-handed="leftHanded" :selected="selected" :width="width" :height="height" @select="selected = $event" />
    <EndPlan :view="view" end="bottom" :left-handed="leftHanded" :selected="selected" :width="width" :height="height" @select="selected = $event" />
  </div>
  <p class="key">{{ t('the_posts_middle_true_to') }}</p>
  <p v-for="line in view.unverified" :key="line" class="unverified" role="note">{{ line }}</p>
  <div class="place">
    <PostSection v-if="withSection" :view="view" :left-handed="leftHanded" :selected="selected" class="beside" />
    <PlaceHeard :view="view" :place="selected" :may-act="mayAct" class="heard" @back="emit('back', $event)" />
  </div>
</template>

<style scoped>
.plans {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.place {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 12px;
}
.beside {
  flex: 0 1 210px;
}
.heard {
  flex: 1 1 280px;
}
.key {
  margin: 4px 0 8px;
  color: var(--quiet);
  font-size: 15px;
}
.unverified {
  margin: 0 0 8px;
  padding: 6px 12px;
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
}
</style>
