<script setup lang="ts">
/** A field to sign in, with a finger, a pen or the mouse: strokes as points, so that it is drawn sharp on paper too. */
import { computed, ref } from 'vue'
import { t } from '@/words/shared'

const path = defineModel<string>({ required: true })
const field = ref<SVGSVGElement | null>(null)
const isDrawing = ref(false)
const WIDTH = 280
const HEIGHT = 88
const isEmpty = computed(() => path.value === '')

function at(event: PointerEvent): string {
  const box = field.value?.getBoundingClientRect()
  if (!box) return ''
  const x = ((event.clientX - box.left) / box.width) * WIDTH
  const y = ((event.clientY - box.top) / box.height) * HEIGHT
  return `${x.toFixed(1)} ${y.toFixed(1)}`
}
function begin(event: PointerEvent): void {
  isDrawing.value = true
  field.value?.setPointerCapture(event.pointerId)
  path.value += `${isEmpty.value ? '' : ' '}M${at(event)}`
}
function draw(event: PointerEvent): void {
  if (isDrawing.value) path.value += ` L${at(event)}`
}
</script>

<template>
  <div class="pad">
    <svg ref="field" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="isEmpty ? t('sign_here') : t('signed')" @pointerdown.prevent="begin" @pointermove="draw" @pointerup="isDrawing = false" @pointercancel="isDrawing = false">
      <line x1="12" :x2="WIDTH - 12" :y1="HEIGHT - 18" :y2="HEIGHT - 18" class="rule" />
      <path v-if="!isEmpty" :d="path" class="stroke" />
    </svg>
    <v-btn size="small" :disabled="isEmpty" @click="path = ''">{{ t('sign_again') }}</v-btn>
  </div>
</template>

<style scoped>
.pad {
  display: flex;
  align-items: end;
  gap: var(--space-2);
}
svg {
  flex: 1;
  max-width: 420px;
  touch-action: none;
  cursor: crosshair;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.rule {
  stroke: var(--hairline);
}
.stroke {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
