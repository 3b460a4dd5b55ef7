"""Use cases of what the workshop goes by: figures, recipes, lists, its tools and its prices."""
