"""Long work: started once, told as it goes, stopped when asked, its result kept by its inputs."""

from lyrandis.jobs.job import Job, State, StoppedError, Tell, Work
from lyrandis.jobs.runner import Jobs, UnknownJobError, digest

__all__ = ["Job", "Jobs", "State", "StoppedError", "Tell", "UnknownJobError", "Work", "digest"]
