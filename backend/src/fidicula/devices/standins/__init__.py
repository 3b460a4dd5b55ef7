"""Devices that are not there: each says that it is simulated, and can be told to fail."""
