export { default as BelongingsPage } from './BelongingsPage.vue'
