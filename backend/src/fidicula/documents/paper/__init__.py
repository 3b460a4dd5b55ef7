"""A sheet of paper: what stands on it as plain values, and the same as a PDF."""
