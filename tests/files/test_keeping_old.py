"""Rigs kept by earlier versions are read: what was added since takes its usual value."""

import json

from lyrandis.core.parts import Rig, SchoolNumbers
from lyrandis.files.rig_json import read_rig
from rig_files import write_rig


def test_a_rig_without_school_numbers_reads_with_the_usual_ones():
    document = json.loads(write_rig(Rig(name="Old"), [], "2026-11-23T20:00:00+00:00"))
    del document["base"]["schools"]
    read = read_rig(json.dumps(document).encode())
    assert read.base.schools == SchoolNumbers()
    assert read.base.name == "Old"
