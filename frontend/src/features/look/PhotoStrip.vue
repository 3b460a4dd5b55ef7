<script setup lang="ts">
/** The photographs of one item: what is there, what comes by file, drop, paste or camera, and the shots worth taking. */
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { reach } from '@/api'
import { ago } from '@/shared/format'
import { usePhotos } from './usePhotos'
import { pictureOf } from '@/shared/pictures'
import { t } from '@/words/look'

const props = defineProps<{ ticket: string; item: string; mayInspect: boolean; mayAdd: boolean }>()
const photos = usePhotos(() => props.ticket)
const { sheet, progress, failures } = photos
const file = ref<HTMLInputElement | null>(null)
const large = ref('')
const isOver = ref(false)

const here = computed(() => sheet.value?.photos.filter((photo) => photo.item === props.item) ?? [])
const shots = computed(() => sheet.value?.shots.filter((shot) => shot.item === props.item) ?? [])
const shown = computed(() => sheet.value?.photos.find((photo) => photo.id === large.value) ?? null)

function addFrom(files: FileList | null | undefined): void {
  if (files?.length && props.mayAdd) photos.add([...files], props.item)
}
function onDrop(event: DragEvent): void {
  isOver.value = false
  addFrom(event.dataTransfer?.files)
}
function onPicked(): void {
  addFrom(file.value?.files)
  if (file.value) file.value.value = ''
}
const onPaste = (event: ClipboardEvent) => addFrom(event.clipboardData?.files)
onMounted(() => {
  void photos.load()
  window.addEventListener('paste', onPaste)
})
onBeforeUnmount(() => window.removeEventListener('paste', onPaste))

async function takeBack(): Promise<void> {
  const id = large.value
  large.value = ''
  await photos.takeBack(id)
}
</script>

<template>
  <section class="photos" :class="{ over: isOver }" :aria-label="t('photographs')" @dragover.prevent="isOver = true" @dragleave="isOver = false" @drop.prevent="onDrop">
    <h3>{{ t('photographs') }}</h3>
    <ul v-if="here.length" class="strip">
      <li v-for="photo in here" :key="photo.id">
        <button type="button" class="plain-button" :aria-label="t('by_larger', { label: photo.label, photo: photo.words ? `, ${photo.words}` : '', by: photo.by })" @click="large = photo.id">
          <img :src="pictureOf(photo.id, 'small')" alt="" loading="lazy" />
        </button>
      </li>
    </ul>
    <p v-else class="quiet">{{ t('none_of_this_yet', { or: mayAdd ? t('drop_or_paste_them_here') : '' }) }}</p>
    <div v-if="mayAdd" class="ways">
      <input id="photo-file" ref="file" class="only-read" type="file" accept="image/*" multiple @change="onPicked" />
      <label class="way" for="photo-file">{{ t('files_or_camera') }}</label>
      <template v-if="mayInspect">
        <button v-for="shot in shots" :key="shot.shot" type="button" class="way plain-button" @click="photos.inspect(shot.shot)">
          {{ shot.is_taken ? 'again: ' : '' }}{{ shot.label }}<small class="lit">{{ shot.how }}</small>
        </button>
      </template>
    </div>
    <p v-if="shots.length && mayInspect && sheet?.camera" class="quiet">{{ t('worth_taking_with_the', { camera: sheet?.camera }) }}</p>
    <div v-if="progress" role="status">
      <v-progress-linear :model-value="(100 * progress.through) / progress.of" color="primary" />
      {{ t('of_kept', { through: progress.through, of: progress.of, here: reach.isAway ? t('the_server_does_not_answer_2') : '' }) }}
    </div>
    <p v-for="failure in failures" :key="failure" class="fault" role="alert">{{ failure }}</p>
    <v-dialog :model-value="shown !== null" max-width="1040" @update:model-value="large = ''">
      <v-card v-if="shown">
        <v-card-text class="large">
          <img :src="pictureOf(shown.id)" :alt="`${shown.label}, ${shown.words}`" />
          <p>{{ shown.label }}<template v-if="shown.words">: {{ shown.words }}</template>. {{ shown.by }}, {{ ago(shown.at) }}<template v-if="shown.camera">, {{ shown.camera }}</template></p>
        </v-card-text>
        <v-card-actions class="actions">
          <v-btn v-if="mayAdd" @click="takeBack">{{ t('undo_this_entry') }}</v-btn>
          <v-btn variant="flat" autofocus @click="large = ''">{{ t('done') }}</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.lit {
  display: block;
  color: var(--quiet);
  font-size: var(--type-note);
}
.photos {
  margin-top: 14px;
  padding: 10px 14px 14px;
  border: 1.5px dashed var(--hairline);
  border-radius: var(--corner);
}
.over {
  border-color: var(--ink);
}
h3 {
  margin: 0 0 6px;
  font-size: var(--type-text);
}
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.strip img {
  display: block;
  width: 132px;
  height: 99px;
  object-fit: cover;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.quiet {
  margin: 0 0 6px;
  color: var(--quiet);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 8px;
}
.way {
  display: inline-flex;
  align-items: center;
  min-height: var(--hit);
  padding: 0 14px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  cursor: pointer;
}
#photo-file:focus-visible + .way {
  outline: 3px solid var(--action);
  outline-offset: 2px;
}
.large img {
  display: block;
  max-width: 100%;
  max-height: 66vh;
  margin: 0 auto 8px;
}
.large p {
  margin: 0;
}
.fault {
  margin: 6px 0 0;
}
.actions {
  padding: 0 24px 20px;
}
</style>
