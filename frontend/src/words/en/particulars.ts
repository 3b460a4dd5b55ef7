export default {
  "particulars": "Particulars",
  "save": "Save",
  "particulars_2": "{ticket}, particulars"
} as const
