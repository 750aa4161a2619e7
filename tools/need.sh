#!/usr/bin/env bash
# Checks that this machine has what a step needs; as root on Debian, installs what is missing.
# Usage: tools/need.sh python|node|browser|voice|speech|band|large-band
set -euo pipefail

install_debian() {
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    echo "Installing $* ..."
    apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "$@" >/dev/null
  fi
}

refuse() {
  echo "ripresa: $*" >&2
  exit 1
}

need_python() {
  command -v "$PYTHON" >/dev/null || install_debian python3 python3-venv
  command -v "$PYTHON" >/dev/null ||
    refuse "Python 3.11 was not found. Install it, or name yours: make ${GOAL:-demo} PYTHON=/path/to/python3.11"
  local version
  version=$("$PYTHON" -c 'import sys; print("%d.%d" % sys.version_info[:2])')
  [ "$version" = 3.11 ] ||
    refuse "Python 3.11 is needed, and $PYTHON is $version. Name another: make ${GOAL:-demo} PYTHON=/path/to/python3.11"
  "$PYTHON" -c 'import venv, ensurepip' 2>/dev/null || install_debian python3-venv
  "$PYTHON" -c 'import venv, ensurepip' 2>/dev/null ||
    refuse "Python's venv module is missing. On Debian: apt-get install python3-venv"
}

need_node() {
  command -v node >/dev/null && command -v npm >/dev/null || install_debian nodejs npm
  command -v node >/dev/null && command -v npm >/dev/null ||
    refuse "Node.js was not found. Install Node 20.19 or newer with npm, then try again."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    refuse "Node 20.19 or newer is needed, and this is $(node --version). Install a newer one, then try again."
}

need_browser() {
  # The shell without a window opens pages in half the time, and is a third to install; any Chromium will do.
  command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || install_debian chromium-headless-shell
  command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || install_debian chromium
  command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null ||
    refuse "Chromium was not found. The browser tests and pictures need it: on Debian, apt-get install chromium"
}

# Own count words are spoken where it is installed, and said as "ta" where it is not.
want_speech() {
  command -v espeak-ng >/dev/null || install_debian espeak-ng || true
}

# A synthesiser that is not ours, for tests of listening; where it cannot be had they are skipped, and say so.
want_band() {
  command -v fluidsynth >/dev/null && [ -f /usr/share/sounds/sf2/TimGM6mb.sf2 ] ||
    install_debian --no-install-recommends fluidsynth timgm6mb-soundfont || true
}

want_large_band() {
  want_band
  [ -f /usr/share/sounds/sf2/FluidR3_GM.sf2 ] || install_debian --no-install-recommends fluid-soundfont-gm || true
}

need_voice() {
  command -v espeak-ng >/dev/null || install_debian espeak-ng
  command -v espeak-ng >/dev/null ||
    refuse "The speech synthesiser was not found: on Debian, apt-get install espeak-ng"
}

PYTHON=${PYTHON:-python3}
case ${1:-} in
  python) need_python ;;
  node) need_node ;;
  browser) need_browser ;;
  voice) need_voice ;;
  speech) want_speech ;;
  band) want_band ;;
  large-band) want_large_band ;;
  *) refuse "usage: tools/need.sh python|node|browser|voice|speech|band|large-band" ;;
esac
