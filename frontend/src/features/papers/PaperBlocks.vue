<script setup lang="ts">
/** A paper as it is printed, block by block. */
import type { PaperView } from '@/api'
import PaperSketch from './PaperSketch.vue'
import { pictureOf } from '@/shared/pictures'
import { t } from '@/words/papers'

defineProps<{ paper: PaperView }>()
</script>

<template>
  <h1 v-if="paper.title">{{ paper.title }}</h1>
  <p v-for="line in paper.subject" :key="line">{{ line }}</p>
  <template v-for="(block, i) in paper.blocks" :key="i">
    <h2 v-if="block.kind === 'heading'">{{ block.words }}</h2>
    <p v-else-if="block.kind === 'text'" :class="{ small: block.small, strong: block.strong }">{{ block.words }}</p>
    <ul v-else-if="block.kind === 'points'" :class="{ boxes: block.ticked?.length }">
      <li v-for="(line, n) in block.lines" :key="line"><svg v-if="block.ticked?.length" viewBox="0 0 12 12" width="12" height="12" :aria-label="block.ticked[n] ? t('done') : t('open')"><rect x="0.6" y="0.6" width="10.8" height="10.8" fill="none" stroke="currentColor" /><path v-if="block.ticked[n]" d="M2.5 6.5 L5 9 L9.5 2.5" fill="none" stroke="currentColor" stroke-width="1.6" /></svg><span>{{ line }}</span></li>
    </ul>
    <table v-else-if="block.kind === 'grid'">
      <thead v-if="block.head.some(Boolean)"><tr><th v-for="(head, c) in block.head" :key="c" :class="{ right: block.right?.includes(c) }">{{ head }}</th></tr></thead>
      <tbody>
        <tr v-for="(row, r) in block.rows" :key="r" :class="{ strong: block.strong?.includes(r) }"><td v-for="(cell, c) in row" :key="c" :class="{ right: block.right?.includes(c) }">{{ cell }}</td></tr>
      </tbody>
    </table>
    <PaperSketch v-else-if="block.kind === 'sketch'" :sketch="block" />
    <div v-else-if="block.kind === 'pictures'" class="pictures">
      <figure v-for="(id, n) in block.ids" :key="id"><img :src="pictureOf(id)" :alt="block.words[n]" /><figcaption>{{ block.words[n] }}</figcaption></figure>
    </div>
    <div v-else-if="block.kind === 'sign'" class="sign">
      <svg v-if="block.strokes" viewBox="0 0 280 88" width="280" height="88" role="img" :aria-label="block.label"><path :d="block.strokes" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" /></svg>
      <span>{{ block.label }}</span>
    </div>
  </template>
  <p v-if="paper.foot" class="foot">{{ paper.foot }}</p>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
p {
  margin: 0 0 1mm;
}
.small,
.foot {
  font-size: 8.5pt;
}
.strong {
  font-weight: 700;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 3mm;
  margin-bottom: 0.8mm;
}
li svg {
  flex: none;
  margin-top: 1mm;
}
ul:not(.boxes) li::before {
  content: '–';
}
table {
  width: 100%;
  margin-bottom: 3mm;
  border-collapse: collapse;
}
th,
td {
  padding: 0.6mm 2mm 0.6mm 0;
  text-align: left;
  vertical-align: top;
  border-bottom: 0.2mm solid #999;
}
th {
  font-weight: 400;
  font-size: 8.5pt;
}
tr {
  break-inside: avoid;
}
.right {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4mm;
}
.pictures figure {
  margin: 0;
}
.pictures img {
  width: 100%;
}
.sign {
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  width: 90mm;
  max-width: 100%;
  min-height: 18mm;
}
.sign span {
  border-top: 0.3mm solid #000;
  font-size: 8.5pt;
}
.foot {
  margin-top: 8mm;
}
</style>
