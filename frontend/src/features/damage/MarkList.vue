<script setup lang="ts">
/** What is marked: where it is, how it stands, every look at it, its photographs. */
import type { DamageMap, DamageMark } from '@/api'
import { t } from '@/words/damage'

defineProps<{ map: DamageMap; chosen: string }>()
const emit = defineEmits<{ look: [mark: DamageMark]; takeBack: [id: string]; photograph: [files: File[], mark: DamageMark] }>()

function given(event: Event, mark: DamageMark): void {
  const input = event.target as HTMLInputElement
  emit('photograph', [...(input.files ?? [])], mark)
  input.value = ''
}
</script>

<template>
  <section :aria-label="t('marked')">
    <p v-if="!map.marks.length" class="quiet">{{ t('nothing_is_marked') }}</p>
    <ol>
      <li v-for="mark in map.marks" :key="mark.thing" :class="{ chosen: mark.thing === chosen }" :data-mark="mark.thing">
        <div class="what">
          <p><b>{{ mark.place }} {{ mark.label }}</b> {{ mark.how }}</p>
          <p class="quiet">{{ mark.where }}</p>
          <p v-if="mark.to_see" class="see"><b>{{ mark.to_see }}</b></p>
          <p v-if="mark.is_open && mark.leads_to">{{ mark.leads_to }}</p>
          <details>
            <summary>{{ t('earlier_looks', { count: mark.looks.length }) }}</summary>
            <p v-for="look in mark.looks" :key="look.id">{{ look.says }}; {{ look.by }}
              <v-btn v-if="look.is_here && map.may_mark" size="small" :aria-label="t('undo_look', { place: mark.place })" @click="emit('takeBack', look.id)">{{ t('undo') }}</v-btn>
            </p>
          </details>
          <div v-if="mark.photos.length" class="photos">
            <a v-for="photo in mark.photos" :key="photo" :href="`/api/photos/${photo}/large`" target="_blank"><img :src="`/api/photos/${photo}/small`" :alt="t('photo_of_mark', { place: mark.place })" /></a>
          </div>
        </div>
        <span v-if="map.may_mark" class="acts">
          <v-btn size="small" :aria-label="t('look_again_at', { place: mark.place, label: mark.label })" @click="emit('look', mark)">{{ t('look_again') }}</v-btn>
          <label class="way">{{ t('photograph') }}<input type="file" accept="image/*" multiple class="hidden" :aria-label="t('photograph_of', { place: mark.place, label: mark.label })" @change="given($event, mark)" /></label>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: flex-start;
  justify-content: space-between;
  padding: 8px;
  border-bottom: 1px solid var(--hairline);
}
li.chosen {
  border-left: 4px solid var(--action);
}
.what {
  flex: 1 1 320px;
}
p {
  margin: 0 0 2px;
}
summary {
  min-height: 28px;
  color: var(--quiet);
  cursor: pointer;
}
.quiet {
  color: var(--quiet);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.way {
  position: relative;
  padding: 10px 12px;
  border: 1px solid var(--action);
  border-radius: var(--corner);
  color: var(--action);
  font-weight: 700;
  cursor: pointer;
}
.way:focus-within {
  outline: 3px solid var(--action);
}
.hidden {
  position: absolute;
  inset: 0;
  opacity: 0;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 4px;
}
.photos img {
  height: 64px;
}
</style>
