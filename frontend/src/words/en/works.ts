export default {
  "record_work": "Record work",
  "what_was_done": "What was done",
  "readings_that_the_work_touches": "Readings that the work touches become stale. Undo removes the entry.",
  "cancel": "Cancel",
  "save": "Save"
} as const
