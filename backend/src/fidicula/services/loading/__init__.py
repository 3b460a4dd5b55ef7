"""Records as the database has them now, made into values that the judgement reads."""
