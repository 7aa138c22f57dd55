"""A rig's file at once, as tests like it."""

from lyrandis.files.rig_json import rig_text


def write_rig(base, entries, created_at, parts=None):
    """The file's text, indented, with a newline at its end."""
    documents = (e.model_dump(mode="json") for e in entries)
    named = {mark: part.model_dump(mode="json") for mark, part in (parts or {}).items()}
    return "".join(rig_text(created_at, base.model_dump(mode="json"), named, documents))
