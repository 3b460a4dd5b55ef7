<script setup lang="ts">
/** On the post's own page: its two ends from above with their trail, and the post itself. */
import { computed, ref, watch } from 'vue'
import { useBench } from '@/features/bench'
import { useAtBench } from '@/shared/person'
import PostCard from './PostCard.vue'
import PostPlan from './PostPlan.vue'
import { useSound } from './useSound'

const props = defineProps<{ ticket: string }>()
const emit = defineEmits<{ changed: [] }>()
const bench = useBench()
const atBench = useAtBench()
const sound = useSound({ ticket: () => props.ticket })
const { view, failure } = sound
const isEditing = ref(false)
const mayAct = computed(() => atBench.may('measure') && !bench.sheet?.instrument.handed_over_at)
watch(() => props.ticket, () => (isEditing.value = false))
watch(view, () => emit('changed'))
const takeBack = (id: string) => void sound.takeBack('post_entry', id)
</script>

<template>
  <div v-if="view" class="post">
    <div class="drawn"><PostPlan :view="view" :left-handed="bench.sheet?.instrument.left_handed ?? false" :may-act="mayAct" :width="408" :height="286" with-section @back="(place) => void sound.backTo(place)" /></div>
    <PostCard v-model="isEditing" :view="view" :may-act="mayAct" :send="sound.describePost" :take-back="takeBack" :visit-id="bench.sheet?.instrument.visit_id ?? ''" class="itself" />
  </div>
  <p v-if="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
.post {
  display: grid;
  gap: 12px;
}
.itself {
  padding: 8px 14px 12px;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
</style>
