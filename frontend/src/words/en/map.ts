export default {
  "parts_of_the_instrument": "Parts of the instrument",
  "treble": "treble",
  "bass": "bass",
  "bar": "Bar",
  "tail": "Tail",
  "try_other_values": "try other values",
  "sheet": "sheet",
  "text": "{part}, {says}",
  "text_2": "{name} {mark}"
} as const
