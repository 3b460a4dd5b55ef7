"""What each page of an instrument says: its labels, findings, reasons and cautions, from numbers and codes."""
