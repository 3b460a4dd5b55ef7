"""What an answer, a page or a paper shows, built from the judgement and its words."""
