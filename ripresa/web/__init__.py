"""The app over HTTP: checks input, calls, turns errors into answers. No rule of the job lives here."""
