"""Data as earlier versions wrote it."""

import json

from alembic import command
from sqlalchemy import text

from lyrandis.store import database


def old_folder(folder):
    """A folder as the first version wrote it, with one rig."""
    folder.mkdir()
    engine = database.engine_of(folder / database.FILE_NAME)
    config = database._config()
    with database.writing(engine) as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
        connection.execute(
            text("INSERT INTO rigs VALUES (1, :base, '2026-01-01T10:00:00+00:00', NULL)"),
            {"base": json.dumps({"name": "Old", "bow": {"length_in": 66}})},
        )
        changes = json.dumps([{"path": "bow.brace_height_in", "after": 8.0}])
        connection.execute(
            text(
                "INSERT INTO entries VALUES (5, 1, 1, 'adjust', '2026-01-02T10:00:00+00:00', "
                "'brace', 'settled', 'quiet', :changes)"
            ),
            {"changes": changes},
        )
    engine.dispose()
    return folder
