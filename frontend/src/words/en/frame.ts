export default {
  "invoice": "Invoice",
  "the_parts": "the parts",
  "measure": "Measure",
  "inspection": "Inspection",
  "sound": "Sound",
  "papers": "Papers",
  "the_whole_instrument": "The whole instrument",
  "pages_of_this_part": "Pages of this part",
  "to_do": "To do",
  "plan": "Plan",
  "hand_over": "Hand-over",
  "history": "History",
  "damage": "Damage",
  "belongings": "Belongings"
} as const
