"""The command line, behind ./fidicula."""
