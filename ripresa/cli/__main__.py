"""``python -m ripresa.cli``."""

import sys

from ripresa.cli import main

sys.exit(main())
