export default {
  "audit_of": "Audit of {ticket}",
  "audit": "Audit",
  "audit_2": "Audit · {ticket}",
  "audit_of_the_house": "Audit of the house",
  "sheet_of": "Sheet of {ticket}",
  "find": "Find",
  "try_again": "Try again",
  "loading": "Loading …",
  "nothing_has_been_changed_yet": "Nothing has been changed yet.",
  "no_line_has_these_words": "No line has these words.",
  "when": "When",
  "act": "Act",
  "what": "What",
  "change": "Change",
  "by": "By",
  "show_older": "Show older"
} as const
