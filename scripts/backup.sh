#!/usr/bin/env bash
# Keeps the database (at one moment, while work goes on), the secrets and the settings, and with --proxies the proxies too.
# Copies of cards are not in it: they lie on their own volumes, with their manifests.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
proxies= folder=
for word in "$@"; do
    case $word in
        --proxies) proxies=1 ;;
        -*) fail "backup knows --proxies and a folder, not '$word'." ;;
        *) folder=$word ;;
    esac
done
use_profile "${CARTELLA_PROFILE_FOR_BACKUP:-desk}"
folder=${folder:-$CARTELLA_VAR/backups}
database_answers || fail "the database does not run. Start Cartella, then back it up; it need not stop for it."
mkdir -p "$folder" || fail "$folder cannot be made."
folder=$(cd "$folder" && pwd)
need=$(database_bytes)
[ -z "$proxies" ] || need=$((need + $(du -sb "$CARTELLA_VAR/proxies" 2> /dev/null | cut -f1 || echo 0)))
floor=0
[ "$(stat -c %d "$folder")" != "$(stat -c %d "$CARTELLA_DB")" ] || floor=${CARTELLA_FLOOR_BYTES:-1000000000}
[ "$(free_bytes "$folder")" -gt $((need + floor)) ] || fail "there is no room for it below $folder: $need bytes are needed, and $floor are kept for the desk itself."
target=$folder/cartella-$(date -u +%Y%m%d-%H%M%S)
part=$target.part
(umask 077 && mkdir "$part") || fail "$part is there already; another backup runs, or was killed. Remove it and try again."
trap 'rm -rf "$part"' EXIT
dump "$part/database.sql.gz" || fail 'the database could not be written down. Is the volume full?'
install -m 0600 "$CARTELLA_VAR/secrets.env" "$part/secrets.env"
[ ! -f .env ] || install -m 0600 .env "$part/settings.env"
if [ -n "$proxies" ] && [ -d "$CARTELLA_VAR/proxies" ]; then cp -a --reflink=auto "$CARTELLA_VAR/proxies" "$part/proxies"; fi
printf 'made %s\nmigration %s\nproxies %s\n' "$(date -u +%FT%TZ)" "$(artisan cartella:pending --last)" "${proxies:-0}" > "$part/about.txt"
(cd "$part" && find . -type f ! -name SHA256SUMS -print0 | sort -z | xargs -0 sha256sum > SHA256SUMS)
sync -f "$part"
mv "$part" "$target"
trap - EXIT
say "Kept in $target"
