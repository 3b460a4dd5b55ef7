export { default as BillingPage } from './BillingPage.vue'
export { default as DocumentPage } from './DocumentPage.vue'
