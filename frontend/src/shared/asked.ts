/** What is asked at the door, in the words of every form that asks it. */
export const CLIMATES = [
  { value: '', title: 'nothing out of the way' },
  { value: 'damp', title: 'a damp place' },
  { value: 'dry', title: 'a dry place' },
]

export const ASKED = {
  kind: 'What for',
  complaint: "Why it came, in the owner's words",
  owner: 'Owner or fleet',
  contact: 'How to reach the owner',
  plays: 'What they play, their words for sound',
  description: 'Anything else worth knowing',
  deadline: 'Needed for, an audition or concert',
  freeze_days: 'Days before it without risky work',
  promised: 'Promised for',
  climate: 'It comes from',
  label_read: 'Label, as it reads',
  believed: 'What the luthier believes',
  worth: 'Value',
  left_as_found: 'What is left as found, and why',
  is_fleet: 'belongs to a fleet that is hired out',
  is_new: 'new instrument',
  left_handed: 'left-handed',
  opposite_build: 'built for the other hand',
} as const
