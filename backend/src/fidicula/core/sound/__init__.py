"""Adjusting by ear: where the post stands, what was heard there, and the way back."""
