"""Questions about the whole house: a line of words read into conditions, and what could come next while typing."""
