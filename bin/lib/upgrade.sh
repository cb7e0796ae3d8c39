# shellcheck shell=bash
# How an installation gets a newer program, or another key, and how it gets back. Sourced by bin/install, not run.

maintenance_group=''
was_served=no

# Where no systemd runs, whoever runs bin/serve is asked to stop, and it is begun again afterwards.
serving() { pgrep -f "^(/bin/)?bash $program/bin/serve --name $name\$|^$program/bin/serve --name $name\$" | head -n 1; }

stop_services() {
    if systemd_runs; then
        services | grep -v -- '-database\.service$' | xargs -r systemctl stop
        return
    fi
    local pid
    pid=$(serving)
    [ -n "$pid" ] || return 0
    [ "$pid" != 1 ] || die 'bin/serve is the first process here: run this before it, with the newer program beside it.'
    was_served=yes
    kill -TERM "$pid"
    for _ in $(seq 300); do kill -0 "$pid" 2>/dev/null || return 0; sleep 0.1; done
    die "The running $program/bin/serve does not stop; nothing was changed."
}
start_services() {
    if systemd_runs; then
        systemctl daemon-reload
        services | xargs systemctl enable --quiet
        services | xargs systemctl restart
    elif [ "$was_served" = yes ]; then
        (cd / && setsid "$program/bin/serve" --name "$name" >>"$data/logs/serve.log" 2>&1 </dev/null &)
    fi
}

# People are told what goes on, by whatever program is newer, since the other one is about to be replaced.
maintenance_on() {
    # a copy, which stays where it is while programs are moved about
    rm -rf "$data/maintenance"
    (umask 022; mkdir "$data/maintenance" && cp -r "$root/bin" "$root/deploy" "$data/maintenance/")
    if systemd_runs; then
        systemd-run --quiet --collect --unit "$name-maintenance" --property "User=$name" --property "Group=$name" \
            --property AmbientCapabilities=CAP_NET_BIND_SERVICE --setenv "JADE_VAR=$data" \
            --setenv "JADE_ACCOUNT=$name" "$data/maintenance/bin/service" maintenance \
            || say 'No page says that it is being upgraded.'
    elif [ "$was_served" = yes ]; then
        JADE_VAR=$data setsid "$data/maintenance/bin/service" maintenance \
            >>"$data/logs/maintenance.log" 2>&1 </dev/null &
        maintenance_group=$!
        wait_for_port "$port" 50 || say 'No page says that it is being upgraded.'
    fi
}
maintenance_off() {
    ! systemd_runs || systemctl stop "$name-maintenance" 2>/dev/null
    [ -z "$maintenance_group" ] || kill -TERM -- "-$maintenance_group" 2>/dev/null
    maintenance_group=''
    rm -rf "$data/maintenance"
    for _ in $(seq 50); do port_is_free "$port" && break; sleep 0.1; done
}
answers_again() {
    systemd_runs || [ "$was_served" = yes ] || return 0
    for _ in $(seq 90); do ! answers || return 0; sleep 1; done
    return 1
}

upgrade_it() {
    local own
    own="$data/upgrades/$(date -u +%Y%m%dT%H%M%SZ)"
    # what a killed upgrade has left: it got no further than this, or the program of today is the newer one
    [ -d "$program" ] || { [ -d "$program.before" ] && mv "$program.before" "$program"; }
    stop_services
    maintenance_on
    (umask 077; mkdir -p "$data/upgrades")
    own_program=$program.new
    if ! with_database take_own_backup "$data" "$own" none; then
        maintenance_off
        start_services
        die 'Without an own backup nothing is upgraded. The earlier program runs again.'
    fi
    if newer_program; then
        rm -rf "$program.before"
        find "$data/upgrades" -mindepth 1 -maxdepth 1 -type d | sort | head -n -3 | xargs -r rm -rf
        say "The newer program runs. What was before is in $own."
    else
        say 'The newer program could not be brought in; the lines above say why. Going back to the earlier one.' >&2
        earlier_program "$own" \
            || die "The earlier program could not be put back either. Its database is in $own:" \
                'bin/restore brings it back on a machine without an installation.'
        die 'The earlier program runs again, with everything as it was. Nothing is lost.'
    fi
}
newer_program() {
    place_program && write_settings || return 1
    if systemd_runs; then write_units "$units"; else write_units "$settings"; fi
    with_database bring_up_to_date || return 1
    maintenance_off
    start_services
    answers_again && return 0
    say "It does not answer within 90 seconds; see $data/logs or the journal of its units." >&2
    return 1
}
load_rows() { gzip -dc "$1/database.sql.gz" | JADE_VAR=$data "$own_program/bin/service" load; }
earlier_program() { # the own backup
    stop_services
    maintenance_off
    maintenance_on
    # by the newer program, since the earlier one may not know how
    [ ! -d "$program.before" ] || own_program=$program
    with_database load_rows "$1" || return 1
    if [ -d "$program.before" ]; then
        rm -rf "$program.new" "$program.failed"
        [ ! -d "$program" ] || mv "$program" "$program.failed"
        mv "$program.before" "$program" || return 1
        rm -rf "$program.failed"
    fi
    cp -p "$1/settings/jade.env" "$settings/jade.env" || return 1
    if systemd_runs; then (root=$program; write_units "$units"); fi
    maintenance_off
    start_services
    answers_again
}

# Another key to close secrets with. Meanwhile what the earlier one closed opens still, so that no passphrase that a
# running job wants is lost; at the end it opens nothing any more, and people sign in again.
change_key() {
    local old new
    old=$(sed -n 's/^APP_KEY=//p' "$settings/jade.env")
    new=base64:$(openssl rand -base64 32)
    # where an earlier run was killed on its way, what it left is finished with
    local earlier
    earlier=$(sed -n 's/^APP_PREVIOUS_KEYS=//p' "$settings/jade.env")
    set_setting APP_PREVIOUS_KEYS "$old${earlier:+,$earlier}"
    set_setting APP_KEY "$new"
    stop_services
    start_services
    answers_again || die 'It does not answer with the new key; APP_PREVIOUS_KEYS in its settings has the earlier one.'
    with_database in_service artisan jade:close-anew || die 'What is held could not be closed anew; run this again.'
    set_setting APP_PREVIOUS_KEYS ''
    stop_services
    start_services
    answers_again || die 'It does not answer; see its logs.'
    say 'The key is another now. The earlier one opens nothing any more; everybody signs in again.'
}
set_setting() { # name, value; nothing is taken out for an empty one
    local file="$settings/jade.env"
    (
        umask 077
        grep -v "^$1=" "$file" >"$file.new"
        [ -z "$2" ] || printf '%s=%s\n' "$1" "$2" >>"$file.new"
        chown root:"$name" "$file.new" && chmod 640 "$file.new" && mv "$file.new" "$file"
    )
}
