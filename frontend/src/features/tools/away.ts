/** What is opened rarely, and is loaded then. */
export { default as ToolCheckDialog } from './ToolCheckDialog.vue'
