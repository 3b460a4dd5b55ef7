"""A plan in money: from its works, their minutes and what the workshop charges."""
