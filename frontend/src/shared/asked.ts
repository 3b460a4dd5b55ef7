import { t } from '@/words/shared'

/** What is asked at the door, in the words of every form that asks it. */
export const CLIMATES = [
  { value: '', title: t('nothing_out_of_the_way') },
  { value: 'damp', title: t('a_damp_place') },
  { value: 'dry', title: t('a_dry_place') },
]

export const ASKED = {
  kind: t('what_for'),
  complaint: t('why_it_came_in_the'),
  owner: t('owner_or_fleet'),
  contact: t('how_to_reach_the_owner'),
  plays: t('what_they_play_their_words'),
  description: t('anything_else_worth_knowing'),
  deadline: t('needed_for_an_audition_or'),
  freeze_days: t('days_before_it_without_risky'),
  promised: t('promised_for'),
  climate: t('it_comes_from'),
  serial: t('serial_number'),
  label_read: t('label_as_it_reads'),
  believed: t('what_the_luthier_believes'),
  worth: t('value'),
  left_as_found: t('what_is_left_as_found'),
  is_fleet: t('belongs_to_a_fleet_that'),
  is_new: t('new_instrument'),
  left_handed: 'left-handed',
  opposite_build: t('built_for_the_other_hand'),
} as const
