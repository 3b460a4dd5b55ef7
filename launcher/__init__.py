"""Set-up and start, with nothing but Python's standard library: it runs before anything is installed."""
