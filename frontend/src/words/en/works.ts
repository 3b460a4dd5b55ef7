export default {
  "record_work": "Record work",
  "what_was_done": "What was done",
  "readings_that_the_work_touches": "Readings that the work touches become stale. Undo removes the entry.",
  "what_was_filed": "Nut filed",
  "filed_at_each_slot": "What was filed off at each slot, in mm. Leave empty where nothing was.",
  "save_what_was_filed": "Save nut filed",
  "cancel": "Cancel",
  "save": "Save"
} as const
