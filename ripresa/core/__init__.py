"""The rules and sums of the job. Opens no file, never asks what time it is, knows no framework."""
