/** Written from core/lumvek_core/vocabulary.py by scripts/api_types.sh: change it there. */

export const SEVERITY_WORDS = {
  "sound": "Sound",
  "watch": "Watch",
  "due": "Due",
  "stop": "Stop",
  "not-seen": "Not seen",
  "does-not-apply": "Does not apply",
  "open": "Open",
  "asked": "Question"
} as const

export const PHASE_NAMES = {
  "everything": "Full",
  "after-season": "After-season",
  "winter": "Winter",
  "pre-season": "Pre-season",
  "first-field": "First field",
  "daily": "Daily",
  "crop-change": "Crop change",
  "changeover": "Changeover",
  "arrival": "Arrival",
  "emergence": "Emergence",
  "fault": "Fault"
} as const

export const CROP_NAMES = {
  "small-grain": "small grain",
  "pod": "pod crops",
  "ear": "ear crops",
  "fine-seed": "fine seed"
} as const
