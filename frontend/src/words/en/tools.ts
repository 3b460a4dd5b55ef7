export default {
  "check_a_tool": "Check a tool",
  "check_now": "Check it now",
  "tool": "Tool",
  "known_length": "Known length",
  "known_length_hint": "A block or a feeler blade, in mm",
  "reading": "Reading {number}",
  "how": "Clean tool and block and set the zero. Read the block five times; lift the tool off each time.",
  "save_check": "Save check",
  "save_check_reads_true": "Save check: reads true",
  "how_without": "Hold it against something you trust, and save the check if it reads true.",
  "checks_so_far": "Checks so far",
  "never_checked": "Nobody has checked it yet.",
  "due_again": "Due again {until}.",
  "too_much": "{off} mm too much",
  "too_little": "{off} mm too little",
  "known_to": "{off}, ±{known_to}",
  "read_true": "seen to read true"
} as const
