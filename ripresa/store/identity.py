"""Which studio this is: its id, made with its data, copied with its backups."""

from ripresa.store.tables import database


def studio_id() -> str:
    """Return the id of the open studio."""
    return str(database.execute_sql("SELECT id FROM studio").fetchone()[0])
