export default {
  "to_the_question": "to the question",
  "ask_the_house": "ask the house",
  "ask_the_house_2": "Ask the house",
  "question_about_the_house": "question about the house",
  "cellos_with_projection_under_78": "cellos with projection under 78",
  "what_could_come_next": "what could come next",
  "in_the_house": "in the house",
  "nothing_in_the_house_answers": "Nothing in the house answers to this.",
  "name_to_keep_this_question": "name to keep this question by",
  "keep_this_question_as": "keep this question as …",
  "keep_question": "Keep question",
  "kept_questions": "kept questions",
  "kept_questions_2": "Kept questions",
  "take_off_the_list": "Take off “{name}”",
  "take_off": "Take off",
  "families_sizes_measures_under_over": "Families, sizes, measures (under, over, between), works (once, twice, since June, this year), due, in the house; owner:, strings:, kind:; “in quotes” for anything else."
} as const
