#!/usr/bin/env bash
# Workers of a machine that is no desk itself: they share rows, queue and bucket with one, as .env says (docs/deploy.md). So many as are
# asked for, one for each processor by itself; Ctrl-C ends them, and what they had begun goes on elsewhere.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
count=${1:-$(nproc)}
[[ $count =~ ^[1-9][0-9]?$ ]] || fail "'work' is followed by how many workers, not by '$count'."
declare -A shared
for name in DB_HOST DB_PORT DB_DATABASE DB_USERNAME DB_PASSWORD APP_KEY QUEUE_CONNECTION CACHE_STORE CARTELLA_LIVE CARTELLA_MEDIA CARTELLA_PACKAGES \
    CARTELLA_STORE_1 CARTELLA_STORE_2 CARTELLA_INBOX; do
    [ -z "${!name:-}" ] || shared[$name]=${!name}
done
for name in DB_HOST DB_PASSWORD APP_KEY; do
    [ -n "${shared[$name]:-}" ] || fail "$name is not said in .env: the workers do not know the desk that they are to work for."
done
[ "${shared[QUEUE_CONNECTION]:-}" = redis ] && [ "${shared[CARTELLA_MEDIA]:-}" = s3 ] ||
    fail "QUEUE_CONNECTION=redis and CARTELLA_MEDIA=s3 are not said in .env: what the workers make would stay on this machine."
# A test has its own; what is shared is the same for both.
use_profile "${CARTELLA_PROFILE:-desk}"
for name in "${!shared[@]}"; do export "$name=${shared[$name]}"; done
ensure_debian "${DEBIAN_PACKAGES[@]}"
ensure_composer

workers=()
trap 'trap "" INT TERM; kill -TERM "${workers[@]}" 2> /dev/null; wait; say "Stopped."; exit 0' INT TERM
worker() {
    local php=
    trap 'trap - TERM; kill -TERM "$php" 2> /dev/null; wait "$php"; exit 0' TERM
    # Each ends after an hour, and where its database or queue went away; another one takes its place.
    while :; do
        artisan queue:work --queue=import,sync,export,media,default --sleep=0.3 --tries=1 --timeout=0 --max-time=3600 >> "$LOGS/worker-$1.log" 2>&1 &
        php=$!
        wait "$php" || sleep 2
    done
}
for ((number = 0; number < count; number++)); do
    worker "$number" &
    workers+=($!)
done
say "$count at work for the desk at ${shared[DB_HOST]}. Ctrl-C stops them."
wait
