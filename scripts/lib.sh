# Shared by scripts/start and scripts/test. Bash; sourced, never run.
# What is built and how far it got lives in $STATE (.radicula), which may be removed at any time. Data does not: see
# scripts/data/folder.mjs.

set -Eeuo pipefail
trap 'printf "radicula: %s failed at line %s\n" "${BASH_SOURCE[0]##*/}" "$LINENO" >&2' ERR
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
STATE=$ROOT/.radicula
export NEXT_TELEMETRY_DISABLED=1

say() { printf 'radicula: %s\n' "$*"; }
die() { printf 'radicula: %s\n' "$*" >&2; exit 1; }

# need_packages "why" package:command … — installs what is missing, and says so before
need_packages() {
  local why=$1 missing=() pair; shift
  for pair in "$@"; do have "${pair#*:}" || missing+=("${pair%%:*}"); done
  [ ${#missing[@]} -eq 0 ] && return 0
  command -v apt-get >/dev/null || die "needs ${missing[*]} ($why), and this machine has no apt-get. Install them by hand, then start again."
  local as=()
  if [ "$(id -u)" -ne 0 ]; then
    sudo -n true 2>/dev/null || die "needs the Debian packages ${missing[*]} ($why), and may not install them as $(id -un). Ask for: sudo apt-get install ${missing[*]}"
    as=(sudo)
  fi
  say "installing Debian packages: ${missing[*]} ($why)"
  if [[ " ${missing[*]} " == *" postgresql "* ]]; then # no second server of Debian's own
    "${as[@]}" mkdir -p /etc/postgresql-common/createcluster.d
    echo 'create_main_cluster = false' | "${as[@]}" tee /etc/postgresql-common/createcluster.d/radicula.conf >/dev/null
  fi
  mkdir -p "$STATE"
  { "${as[@]}" apt-get update && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}"; } >"$STATE/packages.log" 2>&1 \
    || { tail -n 20 "$STATE/packages.log" >&2; die "installing ${missing[*]} failed; the whole log is $STATE/packages.log"; }
}
have() { if [ "$1" = postgres-server ]; then [ -n "$(pg_bin)" ]; else command -v "$1" >/dev/null; fi; }

fingerprint() { (cd "$ROOT" && { find "$@" -type f ! -path '*/node_modules/*' ! -path '*/.next/*' ! -path '*/dist/*' ! -name next-env.d.ts -print0 2>/dev/null || true; } | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-40); }
stamped() { [ -f "$STATE/$1.stamp" ] && [ "$(cat "$STATE/$1.stamp")" = "$2" ]; }
stamp() { mkdir -p "$STATE"; printf '%s\n' "$2" >"$STATE/$1.stamp"; }

# two starts at once: the second waits for what the first makes, and then finds it made
alone() { mkdir -p "$STATE"; exec 9>"$STATE/lock"; flock -n 9 || { say "waiting for another start in this folder"; flock 9; }; "$@" 9>&-; flock -u 9; }
need_modules() { alone install_modules; }
need_build() { alone build; }

install_modules() {
  local mark; mark="$(fingerprint package-lock.json package.json core/package.json web/package.json) $(node -v)"
  [ -d "$ROOT/node_modules" ] && stamped modules "$mark" && return 0
  say "installing npm packages from the lock file (a minute or three the first time)"
  mkdir -p "$STATE"
  (cd "$ROOT" && npm ci --no-audit --no-fund) >"$STATE/npm.log" 2>&1 \
    || { say "npm ci failed; trying once more from nothing"; (cd "$ROOT" && rm -rf node_modules && npm ci --no-audit --no-fund) >>"$STATE/npm.log" 2>&1; } \
    || { tail -n 30 "$STATE/npm.log" >&2; die "npm ci failed; the whole log is $STATE/npm.log"; }
  stamp modules "$mark"
}

build() {
  local mark; mark="$(fingerprint core/src core/words core/cli core/tsconfig.json web/src web/drizzle web/next.config.ts web/tsconfig.json web/package.json package-lock.json)"
  [ -f "$ROOT/web/.next/BUILD_ID" ] && [ -d "$ROOT/core/dist" ] && stamped build "$mark" && return 0
  say "building (a minute or two; only when something changed)"
  rm -f "$STATE/build.stamp"
  (cd "$ROOT" && npm run --silent build:core && npm run --silent build -w web) >"$STATE/build.log" 2>&1 || { tail -n 40 "$STATE/build.log" >&2; die "the build failed; the whole log is $STATE/build.log"; }
  stamp build "$mark"
}

pg_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -V | while read -r d; do [ -x "$d/initdb" ] && echo "$d"; done | tail -n 1; }

# a database for tests only, made anew and thrown away: sets DATABASE_URL, DATABASE_OWNER_URL and SCRATCH
scratch_database() { local lines; lines=$(node "$ROOT/scripts/data/cli.mjs" scratch start); eval "$lines"; }
drop_scratch() { [ -z "${SCRATCH:-}" ] || node "$ROOT/scripts/data/cli.mjs" scratch stop "$SCRATCH"; }
