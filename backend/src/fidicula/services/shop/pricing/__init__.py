"""What is planned, priced and approved at a visit, and what lies in the drawers."""
