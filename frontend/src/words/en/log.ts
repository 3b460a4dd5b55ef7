export default {
  "corrected_since": "corrected since",
  "taken_back": "taken back",
  "log_of": "Log of {ticket}",
  "nothing_is_written_down_yet": "Nothing is written down yet.",
  "when": "When",
  "what": "What",
  "as_typed": "As typed",
  "by": "By",
  "now": "Now",
  "audit_of_every_visit": "Audit of every visit",
  "done": "Done",
  "doubted": "doubted"
} as const
