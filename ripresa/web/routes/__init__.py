"""The addresses under ``/api``, one module for each subject."""

from ripresa.web.routes import choices, climbs, desk, drills, log, readings, students, sums, takes

ALL = (
    choices.api,
    students.api,
    drills.api,
    readings.api,
    climbs.api,
    takes.api,
    desk.api,
    log.api,
    sums.api,
)
