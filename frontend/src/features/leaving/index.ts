export { default as LeavingPage } from './LeavingPage.vue'
export { default as ShopPoints } from './ShopPoints.vue'
