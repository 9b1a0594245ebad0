# Shared by the commands in bin/: one environment per requirements file, made when it is missing or out of date.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
py="${PYTHON:-python3}"
"$py" -c 'import sys; sys.exit(0 if sys.version_info[:2] >= (3, 11) else "Stator needs Python 3.11 or newer; set PYTHON to one.")'

export MALLOC_ARENA_MAX="${MALLOC_ARENA_MAX:-2}" # a server of many threads keeps less memory that it does not use

# environment FOLDER REQUIREMENTS: a virtual environment holding exactly these, with their hashes checked
environment() {
  local folder="$1" wanted="$2" stamp
  stamp="$folder/.holds-$(sha256sum "$wanted" | cut -c1-16)"
  if [ ! -e "$stamp" ]; then
    echo "Setting up $folder from $wanted (a minute, once) ..." >&2
    if "$py" -m pip --version >/dev/null 2>&1; then
      "$py" -m venv --clear --without-pip "$folder"
      "$py" -m pip --python "$folder/bin/python" install --quiet --no-compile --disable-pip-version-check --require-hashes --only-binary :all: -r "$wanted"
    else
      "$py" -m venv --clear "$folder"
      "$folder/bin/python" -m pip install --quiet --no-compile --disable-pip-version-check --require-hashes --only-binary :all: -r "$wanted"
    fi
    touch "$stamp"
  fi
}

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
