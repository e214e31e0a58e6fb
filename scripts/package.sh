#!/usr/bin/env bash
# A Debian package of the version that is committed here, PHP packages and interface built in: the machine that it is for needs neither
# Composer nor npm nor a compiler. FOLDER is where it goes, var/package by itself.
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
[ "$(id -u)" = 0 ] || [ -w "$CARTELLA_VAR" ] || fail "the folder $CARTELLA_VAR cannot be written to."
[ ! -f .package ] || fail "this is an installed package; build one from the project's own folder."
into=${1:-$CARTELLA_VAR/package}
version=${CARTELLA_VERSION:-$(TZ=UTC git log -1 --format=%cd --date=format-local:%Y.%m.%d.%H%M)}
ensure_ui

mkdir -p "$into"
stage=$(mktemp -d "$into/stage.XXXXXX")
trap 'rm -rf "$stage"' EXIT
project=$stage/usr/share/cartella
mkdir -p "$project" "$stage"/{DEBIAN,etc/cartella,usr/bin,lib/systemd/system,usr/share/doc/cartella}
git archive HEAD app artisan bootstrap cartella CHANGELOG.md compat composer.json config core database demo docs LICENSE public README.md resources \
    routes scripts standins .env.example | tar -x -C "$project"
rm -rf "$project"/core/tests "$project"/docs/screenshots "$project"/scripts/{bench,bench.sh,dev.sh,format.sh,hooks,models.sh,package,package.sh,phpstan,shots.php,shots.sh,test.sh}
cp -r public/build "$project/public/build"
say 'Putting the PHP packages in.'
(
    cd "$project"
    COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress --no-scripts --ignore-platform-req=php+ --no-dev --optimize-autoloader
) > "$LOGS/package.log" 2>&1 < /dev/null || fail "PHP packages could not be put in. See $LOGS/package.log."
rm -f "$project/composer.lock"
# What is made at run time lies where a system keeps such things; the scripts find it where they always do.
touch "$project/.package"
ln -s /var/lib/cartella "$project/var"
ln -s /etc/cartella/cartella.env "$project/.env"
ln -s ../share/cartella/cartella "$stage/usr/bin/cartella"
sed 's/^\([A-Z]\)/# \1/' .env.example > "$stage/etc/cartella/cartella.env"
mv "$project/LICENSE" "$stage/usr/share/doc/cartella/copyright"
cp scripts/package/cartella.service scripts/package/cartella-worker.service "$stage/lib/systemd/system/"
install -m 0755 scripts/package/{postinst,prerm,postrm} "$stage/DEBIAN/"
echo /etc/cartella/cartella.env > "$stage/DEBIAN/conffiles"
chmod -R u=rwX,go=rX "$stage"
chmod 0755 "$project/cartella" "$project"/scripts/*.sh
cat > "$stage/DEBIAN/control" << CONTROL
Package: cartella
Version: $version
Section: video
Priority: optional
Architecture: all
Maintainer: The makers of Cartella <makers@cartella.test>
Installed-Size: $(du -sk --exclude=DEBIAN "$stage" | cut -f1)
Depends: adduser, $(printf '%s, ' "${DEBIAN_PACKAGES[@]}" | sed 's/, $//')
Description: the assistant editor's desk for film and television
 Takes camera cards and recorder files in with proof that every byte arrived,
 logs scene, take, angle and timecode, lines picture and sound up, and hands
 organised footage to the editing team.
CONTROL
file=$into/cartella_${version}_all.deb
dpkg-deb --build --root-owner-group "$stage" "$file.part" > "$LOGS/package.log" 2>&1 || fail "the package could not be built. See $LOGS/package.log."
mv "$file.part" "$file"
say "$file"
