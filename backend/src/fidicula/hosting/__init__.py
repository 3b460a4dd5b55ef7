"""Running what the application stands on: its own PostgreSQL cluster on loopback."""
