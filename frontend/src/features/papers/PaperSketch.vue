<script setup lang="ts">
/** A drawing of a paper, from the same points that the PDF is drawn from. */
import type { PaperSketch } from '@/api'

const props = defineProps<{ sketch: PaperSketch }>()
const WEIGHTS = { thin: 0.7, plain: 1.3, bold: 2.8 } as const
const y = (value: number) => props.sketch.height - value
const path = (points: number[][]) => points.map(([x = 0, up = 0], i) => `${i ? 'L' : 'M'}${x.toFixed(2)} ${y(up).toFixed(2)}`).join('')
</script>

<template>
  <figure :style="{ width: `${sketch.across * 100}%` }">
    <svg :viewBox="`0 0 ${sketch.width} ${sketch.height}`" role="img" :aria-label="sketch.says">
      <path
        v-for="(stroke, i) in sketch.strokes"
        :key="i"
        :d="path(stroke.points)"
        :fill="stroke.filled ? 'currentColor' : 'none'"
        :stroke="stroke.filled ? 'none' : 'currentColor'"
        :stroke-width="WEIGHTS[stroke.weight]"
        :stroke-dasharray="stroke.dashed ? '5 4' : undefined"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <span
      v-for="(mark, i) in sketch.marks"
      :key="i"
      class="mark"
      :class="[mark.anchor, { large: mark.large }]"
      :style="{ left: `${(mark.x / sketch.width) * 100}%`, '--up': mark.y / sketch.height, '--tall': sketch.height / sketch.width }"
      aria-hidden="true"
    >{{ mark.words }}</span>
    <figcaption v-if="sketch.caption">{{ sketch.caption }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  position: relative;
  display: inline-block;
  box-sizing: border-box;
  margin: 0;
  padding-right: 8px;
  vertical-align: bottom;
  container-type: inline-size;
  break-inside: avoid;
}
svg {
  display: block;
  width: 100%;
}
.mark {
  position: absolute;
  top: calc((1 - var(--up)) * var(--tall) * 100cqw - 1.1em);
  font-size: 8.5pt;
  line-height: 1;
  white-space: nowrap;
}
.mark.middle {
  transform: translateX(-50%);
}
.mark.end {
  transform: translateX(-100%);
}
.large {
  font-size: 12pt;
  font-weight: 700;
}
figcaption {
  font-size: 8.5pt;
  line-height: 1.3;
}
</style>
