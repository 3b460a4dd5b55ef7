<script setup lang="ts">
/** Every act in its order, newest first: what was done, what it changed, what is missing of it. */
import type { SoundView } from '@/api'
import { ago } from '@/shared/format'
import { signed, STRING_QUALITIES, WHOLE_QUALITIES } from './words'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; mayAct: boolean; visitId: string; leftHanded: boolean }>()
const emit = defineEmits<{ back: [place: number]; takeBack: [kind: 'heard' | 'recording', id: string]; playedBy: [id: string] }>()

const placeOf = (number: number) => props.view.places.find((one) => one.number === number)
const order = () => {
  const all = props.view.string_names.map((name, position) => ({ name, position }))
  return props.leftHanded ? all.reverse() : all
}
</script>

<template>
  <ol class="trail" reversed :aria-label="t('the_trail_newest_first')">
    <li v-for="line in [...view.lines].reverse()" :key="line.key" :class="{ place: line.is_new_place, irreversible: line.irreversible }">
      <span class="mark" :class="{ best: line.is_new_place && placeOf(line.place)?.is_best }">{{ line.is_new_place ? line.place : line.irreversible ? '×' : '·' }}</span>
      <div class="body">
        <p class="says"><b>{{ line.says.split(' (')[0] }}</b>{{ line.says.includes(' (') ? ` (${line.says.split(' (').slice(1).join(' (')}` : '' }} <span class="quiet">{{ line.by ? `${line.by}, ` : '' }}{{ ago(line.at) }}</span></p>
        <p v-if="line.irreversible" class="never">{{ t('this_does_not_come_back') }}</p>
        <p v-if="line.on.length" class="quiet">{{ t('heard_with', { on: line.on.join(', ') }) }}</p>
        <p v-for="mark in line.marks" :key="mark" class="missing">{{ mark }}</p>
        <p v-if="line.changed.length" class="changed">
          <span v-for="one in line.changed.slice(0, 6)" :key="one.label" :class="one.change > 0 ? 'up' : 'down'">{{ one.label }} <b>{{ signed(one.change) }}</b></span>
        </p>
        <details v-for="one in line.heard" :key="one.id" class="heard">
          <summary>
            <b v-if="one.mean !== null">{{ t('of_5', { mean: one.mean.toFixed(1) }) }}</b>
            {{ one.words.map((word) => `“${word}”`).join(', ') }} {{ one.remark }}<template v-if="one.manner"> ({{ one.manner }})</template>
            <span class="quiet">{{ one.player }}<template v-if="one.is_other">{{ t('not_this_sessions_player_kept') }}</template></span>
          </summary>
          <table v-if="Object.keys(one.rated).length">
            <thead><tr><th></th><th v-for="string in order()" :key="string.position" scope="col">{{ string.name }}</th></tr></thead>
            <tbody>
              <tr v-for="quality in STRING_QUALITIES" :key="quality">
                <th scope="row">{{ quality }}</th>
                <td v-for="string in order()" :key="string.position">{{ one.rated[`${quality}/${string.position}`] ?? '' }}</td>
              </tr>
            </tbody>
          </table>
          <p class="whole"><span v-for="quality in WHOLE_QUALITIES" :key="quality">{{ quality }} <b>{{ one.rated[quality] ?? '–' }}</b></span></p>
          <div v-if="mayAct && line.visit_id === visitId" class="ways">
            <v-btn size="small" @click="emit('playedBy', one.id)">{{ t('change_player') }}</v-btn>
            <v-btn size="small" @click="emit('takeBack', 'heard', one.id)">{{ t('undo_this_entry') }}</v-btn>
          </div>
        </details>
        <div v-for="one in line.recordings" :key="one.id" class="recording">
          <audio controls preload="none" :src="`/api/recordings/${one.id}`" :aria-label="t('recording_at_place', { place: line.place })"></audio>
          <span class="quiet">{{ one.words }}</span>
          <v-btn v-if="mayAct && line.visit_id === visitId" size="small" @click="emit('takeBack', 'recording', one.id)">{{ t('undo_this_entry') }}</v-btn>
        </div>
        <v-btn v-if="line.is_new_place && mayAct && placeOf(line.place)?.way_back" size="small" class="back" @click="emit('back', line.place)">{{ t('back_to_place_3', { place: line.place }) }}</v-btn>
        <p v-if="line.is_new_place && placeOf(line.place)?.incomparable.length" class="quiet">{{ t('no_longer_compares', { join: placeOf(line.place)?.incomparable.join(', ') }) }}</p>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.trail {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  position: relative;
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr);
  gap: 10px;
  padding-bottom: 12px;
}
li::before {
  content: '';
  position: absolute;
  left: 16px;
  top: 26px;
  bottom: -4px;
  border-left: 2px solid var(--hairline);
}
li:last-child::before {
  display: none;
}
.mark {
  z-index: 1;
  width: 32px;
  height: 32px;
  border-radius: var(--corner);
  background: var(--sheet);
  font-size: var(--type-target);
  font-weight: 700;
  line-height: 30px;
  text-align: center;
}
.place .mark {
  border: 1px solid var(--ink);
}
.mark.best {
  border-width: 3px;
  line-height: 26px;
}
p {
  margin: 0 0 2px;
}
.says {
  padding-top: 4px;
}
.missing {
  font-style: italic;
}
.never {
  font-weight: 700;
}
.changed {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
}
.up b {
  color: var(--below);
}
.down b {
  color: var(--above);
}
.quiet {
  color: var(--quiet);
}
summary {
  min-height: 32px;
  padding: 4px 0;
  cursor: pointer;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 2px 12px 2px 0;
  font-weight: 400;
  text-align: left;
}
td {
  font-weight: 700;
}
.whole,
.ways,
.recording {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
audio {
  width: 260px;
  height: 40px;
}
.back {
  margin-top: 4px;
}
</style>
