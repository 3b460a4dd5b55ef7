"""Benchmarks: the figures that the work is held to, as ratios within one run. Never a test."""
