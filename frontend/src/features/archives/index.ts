export { default as ArchivesPage } from './ArchivesPage.vue'
