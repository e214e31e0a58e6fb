#!/usr/bin/env bash
. "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
use_profile desk
if ! alive "$RUN/supervisord.pid"; then
    rm -f "$RUN/supervisord.pid"
    end_remains
    say 'Cartella does not run from this folder.'
    exit 0
fi
pid=$(cat "$RUN/supervisord.pid")
touch "$RUN/asked-to-stop" "$CARTELLA_VAR/stopped-on-purpose" # tells the start command that this end is meant
kill -TERM "$pid"
gone() { ! kill -0 "$pid" 2> /dev/null; }
wait_until 60 gone || fail "it does not stop. Its main process is $pid."
end_remains
say 'Stopped.'
