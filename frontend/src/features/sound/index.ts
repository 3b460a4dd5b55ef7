export { default as SoundPage } from './SoundPage.vue'
export { default as PostTrail } from './PostTrail.vue'
