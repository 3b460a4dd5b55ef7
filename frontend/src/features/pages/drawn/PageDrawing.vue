<script setup lang="ts">
/** What a page is about, drawn; what can be chosen on the drawing moves the same handles as the fields. */
import { computed } from 'vue'
import type { PageView } from '@/api'
import BarSection from './BarSection.vue'
import { EndView, sheetGeometry } from '@/features/drawing'
import LoadArrows from './LoadArrows.vue'
import NeckLine from './NeckLine.vue'
import NutFront from './NutFront.vue'
import PlaceFeet from './PlaceFeet.vue'
import StringLines from './StringLines.vue'
import SwingView from './SwingView.vue'
import TailSide from './TailSide.vue'
import WheelsView from './WheelsView.vue'

const props = defineProps<{ view: PageView; leftHanded: boolean; family: string }>()
const emit = defineEmits<{ tried: [handle: string, value: number | string] }>()

const WIDTH = 644
const HEIGHT = 264
const drawing = computed(() => props.view.drawing ?? null)
/** The crown as it would be, drawn as on the sheet. */
const geometry = computed(() =>
  sheetGeometry({
    width: WIDTH,
    left: 12,
    right: 12,
    strings: drawing.value?.kind === 'crown' ? drawing.value.bridge.strings.length : 4,
    leftHanded: props.leftHanded,
    drawing: drawing.value?.kind === 'crown' ? drawing.value.bridge : null,
  }),
)
const names = computed(() => (props.view.handles.find((handle) => handle.name === 'shown')?.choices ?? []).map((choice) => choice.key))
</script>

<template>
  <NutFront v-if="drawing?.kind === 'nut'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" :left-handed="leftHanded" />
  <BarSection v-else-if="drawing?.kind === 'bar'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" :left-handed="leftHanded" @blank="emit('tried', 'foot_width', $event)" />
  <LoadArrows v-else-if="drawing?.kind === 'load'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" :left-handed="leftHanded" />
  <WheelsView v-else-if="drawing?.kind === 'wheels'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" :left-handed="leftHanded" />
  <SwingView v-else-if="drawing?.kind === 'swing'" :drawing="drawing" :names="names" :width="WIDTH" :height="200" @shown="emit('tried', 'shown', $event)" @note="emit('tried', 'note', $event)" />
  <NeckLine v-else-if="drawing?.kind === 'neck'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" />
  <TailSide v-else-if="drawing?.kind === 'tail'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" />
  <PlaceFeet v-else-if="drawing?.kind === 'place'" :drawing="drawing" :width="WIDTH" :height="228" :left-handed="leftHanded" />
  <EndView v-else-if="drawing?.kind === 'crown'" :family="family" :drawing="drawing.bridge" :geometry="geometry" :width="WIDTH" :height="250" :room="620" :left-handed="leftHanded" />
  <StringLines v-else-if="drawing?.kind === 'strings'" :drawing="drawing" :width="WIDTH" :height="HEIGHT" />
</template>
