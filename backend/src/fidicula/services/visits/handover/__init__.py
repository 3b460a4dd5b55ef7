"""How a visit ends: its checklist, the signature and the seal, and what is added afterwards."""
