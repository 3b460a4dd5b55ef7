"""What is connected to the bench."""
