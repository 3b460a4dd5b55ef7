export { default as DrawersPage } from './DrawersPage.vue'
