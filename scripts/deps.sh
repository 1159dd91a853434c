#!/usr/bin/env bash
# Installs the Debian packages Capstan needs, where they are missing: `run` for the application, `test` for all tests.
set -euo pipefail
need() { # need COMMAND PACKAGE
  command -v "$1" >/dev/null 2>&1 || missing+=("$2")
}
missing=()
need ffmpeg ffmpeg
need espeak-ng espeak-ng
need avifdec libavif-bin
if [ "${1:-run}" = test ]; then
  need chromium chromium
  need gifsicle gifsicle
  need hb-shape libharfbuzz-bin
  need rsvg-convert librsvg2-bin
  need webpmux webp
  need sox sox
  need pdfinfo poppler-utils
  need transicc liblcms2-utils
  [ -d /usr/share/backgrounds/mate/nature ] || missing+=(mate-backgrounds) # photographs, which subjects are cut out of
fi
[ ${#missing[@]} -eq 0 ] && exit 0
echo "Installing: ${missing[*]}"
as_root=()
if [ "$(id -u)" -ne 0 ]; then
  if ! command -v sudo >/dev/null; then
    echo "Please install these packages and try again: ${missing[*]}" >&2
    exit 1
  fi
  as_root=(sudo)
fi
"${as_root[@]}" apt-get update -qq
"${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
