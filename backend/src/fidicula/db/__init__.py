"""PostgreSQL: tables, records, and the unit of work that alone commits."""
