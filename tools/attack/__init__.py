"""Attacks on the running app: hostile requests and files, kills, two tabs, full disks. `make attack` runs them all."""
