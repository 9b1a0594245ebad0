# Shared by the commands in bin/: one environment per requirements file, made when it is missing or out of date.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

version() { "$1" -c 'import sqlite3, ssl, sys, venv; print("%d.%d" % sys.version_info[:2])' 2>/dev/null || true; }
py="${PYTHON:-python3}"
if [ -z "${PYTHON:-}" ] && [ "$(version /usr/bin/python3)" = "$(version python3)" ]; then
  py=/usr/bin/python3 # the system's own of the same version: distributions compile it by what it spends its time on, and it answers a page a fifth sooner
fi
"$py" -c 'import sys; sys.exit(0 if sys.version_info[:2] >= (3, 11) else "Stator needs Python 3.11 or newer; set PYTHON to one.")'

export MALLOC_ARENA_MAX="${MALLOC_ARENA_MAX:-2}" # a server of many threads keeps less memory that it does not use

# environment FOLDER REQUIREMENTS: a virtual environment holding exactly these, with their hashes checked
environment() {
  local folder="$1" wanted="$2" stamp
  stamp="$folder/.holds-$(sha256sum "$wanted" | cut -c1-16)"
  if [ ! -e "$stamp" ]; then
    echo "Setting up $folder from $wanted (a minute, once) ..." >&2
    local installer="$py"
    "$py" -m pip --version >/dev/null 2>&1 || installer=python3 # Debian's own comes without; pip of another Python installs into it
    if "$installer" -m pip --version >/dev/null 2>&1; then
      "$py" -m venv --clear --without-pip "$folder"
      "$installer" -m pip --python "$folder/bin/python" install --quiet --no-compile --disable-pip-version-check --require-hashes --only-binary :all: -r "$wanted"
    else
      "$py" -m venv --clear "$folder"
      "$folder/bin/python" -m pip install --quiet --no-compile --disable-pip-version-check --require-hashes --only-binary :all: -r "$wanted"
    fi
    touch "$stamp"
  fi
}

# a_chromium: Debian's that shows pages alone, before its whole browser, whose windows nobody sees cost a quarter more
a_chromium() { command -v chromium-headless-shell || command -v chromium; }

# gettext_tools: Debian's gettext, for the catalogues of other languages
gettext_tools() {
  if ! command -v msgfmt >/dev/null || ! command -v xgettext >/dev/null; then
    if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
      echo "Installing Debian's gettext ..." >&2
      { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends gettext; } >/dev/null
    else
      echo "Catalogues need gettext: sudo apt-get install gettext" >&2
      return 1
    fi
  fi
}

manage() { "$venv/bin/python" manage.py "$@"; }
