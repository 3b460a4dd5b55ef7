"""What is so: the state, findings, questions and slips of each part of an instrument, in numbers and codes."""
