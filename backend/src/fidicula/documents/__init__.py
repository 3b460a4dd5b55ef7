"""What comes in and goes out as a file."""
