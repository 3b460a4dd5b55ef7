export default {
  "record_work": "Record work",
  "what_was_done": "What was done",
  "readings_that_the_work_touches": "Readings that the work touches become stale. Undo removes the entry.",
  "what_was_filed": "Nut filed",
  "filed_at_each_slot": "What was filed off at each slot, in mm. Leave empty where nothing was.",
  "wheels_turned": "Wheels turned",
  "turned_at_each_wheel": "Turns of each wheel, + up, − down: 1.5, 1 1/2 or −½. Leave empty where it was not turned.",
  "save_what_was_turned": "Save wheels turned",
  "bass_wheel": "bass wheel",
  "treble_wheel": "treble wheel",
  "post_set": "Post set",
  "how_the_strings_were": "How the strings were as it was set: a post that fits under tension may fall when they are let off.",
  "save_post_set": "Save post set",
  "save_what_was_filed": "Save nut filed",
  "cancel": "Cancel",
  "save": "Save"
} as const
