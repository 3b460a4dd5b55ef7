"""What is wanted, resolved from figures and one school for each measure."""
