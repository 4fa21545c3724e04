"""Long work on the database-backed task queue: whoever runs ``./cradle worker`` on the same database shares it."""

from levelcradle.jobs.names import SHEETS, WHOLE
from levelcradle.jobs.queue import Queue, run_worker
from levelcradle.jobs.told import StudyOut, proposals_json, study_out

__all__ = ["SHEETS", "WHOLE", "Queue", "StudyOut", "proposals_json", "run_worker", "study_out"]
