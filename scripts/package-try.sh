#!/usr/bin/env bash
# Tries the Debian package on a machine where nothing is: a folder that debootstrap makes, without Composer, npm or a compiler. It is
# installed, started, used, upgraded, removed and purged; what somebody made has to be there still. Where such a folder cannot be
# made, it says so and that is no failure.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
skip() {
    say "skipped: $*"
    exit 0
}
[ "$(id -u)" = 0 ] || skip 'only root can make a bare system.'
use_profile test
ensure_debian debootstrap curl
bare=$CARTELLA_VAR/bare web=${CARTELLA_PACKAGE_WEB_PORT:-8660} db=${CARTELLA_PACKAGE_DB_PORT:-33666}
desk=
leave() {
    [ -z "$desk" ] || kill -TERM "$desk" 2> /dev/null || true
    [ -z "$desk" ] || wait "$desk" 2> /dev/null || true
    local mounted
    for mounted in "$bare/proc" "$bare/dev"; do
        ! mountpoint -q "$mounted" || umount -l "$mounted"
    done
    # Never through a mount that stayed.
    rm -rf --one-file-system "$bare"
}
trap 'trap - INT TERM; exit 130' INT TERM
trap leave EXIT
leave
mkdir -p "$bare"
mirror=$(apt-get indextargets --format '$(SITE)' 'Created-By: Packages' 'Codename: bookworm' | grep -m1 debian || true)
say 'Making a bare system.'
debootstrap --variant=minbase bookworm "$bare" "${mirror:-http://deb.debian.org/debian}" > "$LOGS/bare.log" 2>&1 ||
    skip "a bare system cannot be made here: $(tail -n1 "$LOGS/bare.log")"
mount --bind /proc "$bare/proc" 2> /dev/null && mount --bind /dev "$bare/dev" 2> /dev/null || skip 'nothing can be mounted here.'
printf '#!/bin/sh\nexit 101\n' > "$bare/usr/sbin/policy-rc.d"
chmod 755 "$bare/usr/sbin/policy-rc.d"
# The same way out as this machine has.
cp -L /etc/resolv.conf "$bare/etc/resolv.conf"
cp /etc/apt/apt.conf.d/*proxy* "$bare/etc/apt/apt.conf.d/" 2> /dev/null || true
inside() { chroot "$bare" env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin LANG=C.UTF-8 DEBIAN_FRONTEND=noninteractive ${http_proxy:+"http_proxy=$http_proxy"} "$@"; }

rm -rf "$CARTELLA_VAR/package"
first=$(CARTELLA_VERSION=1.0 scripts/package.sh "$CARTELLA_VAR/package" | tail -n1)
# The same once more, newer.
dpkg-deb -R "$first" "$CARTELLA_VAR/package/again"
sed -i 's/^Version: .*/Version: 1.1/' "$CARTELLA_VAR/package/again/DEBIAN/control"
second=$CARTELLA_VAR/package/cartella_1.1_all.deb
dpkg-deb --build --root-owner-group "$CARTELLA_VAR/package/again" "$second" > /dev/null
rm -rf "$CARTELLA_VAR/package/again"
cp "$first" "$second" "$bare/srv/"
say 'Installing it.'
inside apt-get update -q > "$LOGS/bare.log" 2>&1
inside apt-get install -q -y --no-install-recommends "/srv/${first##*/}" >> "$LOGS/bare.log" 2>&1 || fail "it cannot be installed. See $LOGS/bare.log."
for tool in composer npm node gcc make git; do
    ! inside sh -c "command -v $tool" > /dev/null || fail "the bare system has $tool, so this proves nothing."
done
# Somebody's own settings stay through an upgrade.
printf 'CARTELLA_WEB_PORT=%s\nCARTELLA_DB_PORT=%s\n' "$web" "$db" >> "$bare/etc/cartella/cartella.env"
up() {
    chroot "$bare" setpriv --reuid cartella --regid cartella --clear-groups -- env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin LANG=C.UTF-8 \
        cartella start --empty > "$LOGS/bare-desk.log" 2>&1 &
    desk=$!
    answers() { curl -fsS --noproxy '*' -o /dev/null "http://127.0.0.1:$web/api/session" 2> /dev/null; }
    wait_until 120 answers || fail "it does not start. See $LOGS/bare-desk.log."
}
down() {
    inside cartella stop > /dev/null
    wait "$desk" 2> /dev/null || true
    desk=
}
sign_in() {
    local jar=$CARTELLA_VAR/bare-cookies ask=(curl -fsS --noproxy '*' -H 'Accept: application/json' -H 'Content-Type: application/json') token
    "${ask[@]}" -o /dev/null -c "$jar" "http://127.0.0.1:$web/api/session"
    token=$(sed -n 's/.*XSRF-TOKEN\t//p' "$jar" | sed 's/%3D/=/g')
    "${ask[@]}" -b "$jar" -o /dev/null -H "X-XSRF-TOKEN: $token" -d "{\"email\":\"admin@cartella.test\",\"password\":\"$1\"}" "http://127.0.0.1:$web/api/session"
}
up
say 'It runs.'
curl -fsS --noproxy '*' "http://127.0.0.1:$web/" | grep -q '/build/assets/' || fail 'it serves no page.'
told() { password=$(sed -n 's/.* with the password \(.*\)$/\1/p' "$LOGS/bare-desk.log" | head -n1) && [ -n "$password" ]; }
wait_until 20 told || fail "it names no first admin. See $LOGS/bare-desk.log."
sign_in "$password" || fail 'its first admin cannot sign in.'
say 'Its first admin can sign in.'
inside cartella status > "$LOGS/bare-status.log" 2>&1 || true
grep -q "^Cartella runs at http://127.0.0.1:$web as cartella" "$LOGS/bare-status.log" || fail "its status cannot be asked. See $LOGS/bare-status.log."
# The upgrade finds it running, stops it, and leaves what is there.
inside apt-get install -q -y --no-install-recommends "/srv/${second##*/}" >> "$LOGS/bare.log" 2>&1 || fail "it cannot be upgraded. See $LOGS/bare.log."
wait "$desk" 2> /dev/null || true
desk=
up
sign_in "$password" || fail 'after an upgrade its first admin is gone.'
say 'Upgraded; its first admin is there.'
down
inside apt-get remove -q -y cartella >> "$LOGS/bare.log" 2>&1 || fail "it cannot be removed. See $LOGS/bare.log."
[ ! -e "$bare/usr/share/cartella/artisan" ] || fail 'removed, it is still there.'
[ -d "$bare/var/lib/cartella/db/cartella" ] || fail 'removed, it took the database along.'
inside apt-get install -q -y --no-install-recommends "/srv/${second##*/}" >> "$LOGS/bare.log" 2>&1 || fail "it cannot be installed again. See $LOGS/bare.log."
up
sign_in "$password" || fail 'removed and installed again, its first admin is gone.'
down
inside apt-get purge -q -y cartella >> "$LOGS/bare.log" 2>&1 || fail "it cannot be purged. See $LOGS/bare.log."
[ -d "$bare/var/lib/cartella/db/cartella" ] || fail 'purged, it took the database along.'
say 'Removed, and even purged, it leaves what was made.'
