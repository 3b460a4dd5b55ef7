"""An instrument over its visits: what changed, readings through the seasons, what was done, and the log of all."""
