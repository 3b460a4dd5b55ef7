export { default as AuditPage } from './AuditPage.vue'
