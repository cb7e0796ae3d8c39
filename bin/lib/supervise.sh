# shellcheck shell=bash
# Watches over the services of one instance: what ends by itself is started again, and leaves nothing behind. Sourced.

names=()
groups=()
ends=()   # how often each has ended soon after its start
begun=()  # when each was started, in seconds


launch() { # place in the list
    local log="$JADE_VAR/logs/${names[$1]}.log"
    [ -f "$log" ] || (umask 077; : >"$log")
    case ${names[$1]} in mariadb*) give "$database_account" "$log" ;; *) give "$service_account" "$log" ;; esac
    JADE_SERVICE=jade-step-service setsid bin/service "${names[$1]%-*}" >>"$log" 2>&1 </dev/null 9>&- &
    groups[$1]=$!
    begun[$1]=$SECONDS
    printf '%s' $! >"$JADE_VAR/run/${names[$1]}.pgid"
    disown
}
start() { # name, with a number: worker-2
    names+=("$1")
    ends+=(0)
    launch $((${#names[@]} - 1))
}
group_lives() { kill -0 -- "-$1" 2>/dev/null; }

# Ends a group: with a word first, and after so many tenths of a second without one.
end_group() {
    local tenths=$2
    kill -TERM -- "-$1" 2>/dev/null
    while [ "$tenths" -gt 0 ] && group_lives "$1"; do sleep 0.1; tenths=$((tenths - 1)); done
    kill -KILL -- "-$1" 2>/dev/null
    for _ in 1 2 3 4 5 6 7 8 9 10; do group_lives "$1" || break; sleep 0.1; done
}

# What a killed start left behind is stopped before another begins.
end_left_behind() {
    local left group one
    for left in "$JADE_VAR"/run/*.pgid; do
        [ -f "$left" ] || continue
        group=$(cat "$left")
        # the number may be another program's by now
        for one in $(pgrep -g "$group"); do
            grep -qs jade-step-service "/proc/$one/environ" || continue
            end_group "$group" 100
            break
        done
        rm -f "$left"
    done
}

stop_all() {
    trap '' INT TERM
    say 'Stopping.'
    local i
    for ((i = ${#names[@]} - 1; i > 0; i--)); do kill -TERM -- "-${groups[i]}" 2>/dev/null; done
    # the database goes last, when nobody uses it any more
    for ((i = ${#names[@]} - 1; i >= 0; i--)); do
        end_group "${groups[i]}" 100
        rm -f "$JADE_VAR/run/${names[i]}.pgid"
    done
    exit "${1:-0}"
}

# A service that ends by itself is started again: the ledger lets its work go on. One that cannot stay is tried at ever
# longer intervals, up to half a minute, so that its log stays readable.
watch_once() {
    local i wait
    for i in "${!names[@]}"; do
        kill -0 "${groups[i]}" 2>/dev/null && continue
        if [ -f "$JADE_VAR/run/${names[i]}.pgid" ]; then
            end_group "${groups[i]}" 0 # its master is gone; what is left of it would keep its port
            rm -f "$JADE_VAR/run/${names[i]}.pgid"
            if [ $((SECONDS - begun[i])) -lt 20 ]; then ends[i]=$((ends[i] + 1)); else ends[i]=0; fi
            wait=$((ends[i] < 4 ? 0 : ends[i] < 15 ? ends[i] * 2 : 30))
            begun[i]=$((SECONDS + wait))
            if [ $wait -eq 0 ]; then
                say "${names[i]} has ended; starting it again."
            else
                say "${names[i]} ends soon after its start; trying again in $wait s." \
                    "See ${names[i]}.log in $JADE_VAR/logs."
            fi
        fi
        [ $SECONDS -lt "${begun[i]}" ] || launch "$i"
    done
}

# Logs are kept for five turns of 5 MB, whoever starts and stops.
turn_logs() {
    local state="$JADE_VAR/logs/turns" rules="$JADE_VAR/run/logs.conf"
    printf '"%s/logs/*.log" {\n size 5M\n rotate 5\n compress\n copytruncate\n missingok\n notifempty\n su %s %s\n}\n' \
        "$JADE_VAR" "$(id -un)" "$(id -gn)" >"$rules"
    chmod 600 "$rules"
    PATH=$PATH:/usr/sbin logrotate --state "$state" "$rules" 2>>"$JADE_VAR/logs/turns.log" || true
}
