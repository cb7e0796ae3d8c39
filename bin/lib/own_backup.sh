# shellcheck shell=bash
# An instance's own backup: taken while work goes on, and loaded again. Sourced after prepare.sh, not run.
#
#   database.sql.gz       all rows at one moment
#   settings/             jade.env, owner.env; of an installation also installed, tls/
#   bags.jsonl            the bags that were whole, each with one digest for all of it
#   bags/                 the folders of those that were chosen
#   backup.json           what this is, and when it was made
#   manifest-sha256.txt   the digests of all of it but bags/, whose bags list their own files

# Whose bin/service is asked: the accounts of the services have to be able to read it.
own_program=${own_program:-$root}

# Of an installation, its settings lie where only root reads them.
own_settings() { # the instance's folder
    local link
    link=$(readlink -f "$1/jade.env") && dirname "$link"
}

# Copies bags in one go, so that what they share is shared in the copy too, and reads every byte of the copy back.
copy_bags() { # from, to, ids on the input
    local ids=() id
    mapfile -t ids
    mkdir -p "$2"
    for id in "${ids[@]}"; do [ -d "$1/$id" ] || [ ! -e "$1/$id" ] || return 1; done
    local there=()
    for id in "${ids[@]}"; do
        if [ -d "$1/$id" ]; then there+=("./$id"); else say "  $id was deleted meanwhile: left out."; fi
    done
    [ ${#there[@]} -gt 0 ] || return 0
    (cd "$1" && cp -a "${there[@]}" "$2/") || return 1
    local at=0
    for id in "${there[@]}"; do
        at=$((at + 1))
        [ ! -t 1 ] || printf '\r  reading back %d of %d' "$at" "${#there[@]}"
        php "$root/bin/jade" bag:verify "$2/$id" >/dev/null || { say "  $id: the copy is not sound."; return 1; }
    done
    [ ! -t 1 ] || printf '\n'
}
ids_of() { sed -n 's/^{"id":"\([A-Za-z0-9_-]*\)".*/\1/p' "$1"; }

take_own_backup() { # the instance's folder, into a folder that is not there yet, none|sealed|all
    local data=$1 into=$2 bags=$3 part="$2.part" settings root_of_bags listed=()
    settings=$(own_settings "$data") || { say "There is no instance in $data." >&2; return 1; }
    [ ! -e "$into" ] || { say "$into is there already." >&2; return 1; }
    rm -rf "$part"
    (
        umask 077
        mkdir -p "$part/settings" || exit 1
        export JADE_VAR=$data
        say 'The bags and their digests'
        [ "$bags" != sealed ] || listed=(--sealed)
        "$own_program/bin/service" artisan jade:bags >"$part/bags.jsonl" || exit 1
        say 'The database'
        set -o pipefail
        "$own_program/bin/service" dump | gzip >"$part/database.sql.gz" || exit 1
        gzip -dc "$part/database.sql.gz" | tail -c 200 | grep -q '^-- Dump completed' || exit 1
        say 'The settings'
        cp -p "$settings/jade.env" "$data/owner.env" "$part/settings/" || exit 1
        for name in installed tls; do
            [ ! -e "$settings/$name" ] || cp -rp "$settings/$name" "$part/settings/" || exit 1
        done
        if [ "$bags" != none ]; then
            root_of_bags=$("$own_program/bin/service" artisan jade:bags --root) || exit 1
            say "The folders of bags ($bags)"
            "$own_program/bin/service" artisan jade:bags "${listed[@]}" >"$part/chosen" || exit 1
            ids_of "$part/chosen" | copy_bags "$root_of_bags" "$part/bags" || exit 1
            rm -f "$part/chosen"
        fi
        printf '{"formatVersion":1,"product":"Jade Step","madeAt":"%s","bags":"%s"}\n' \
            "$(date -u +%Y-%m-%dT%H:%M:%SZ)" "$bags" >"$part/backup.json"
        cd "$part" && find . -path ./bags -prune -o -type f ! -name manifest-sha256.txt -print0 | sort -z \
            | xargs -0 sha256sum >manifest-sha256.txt || exit 1
        sync -f "$part"
    ) || { say "The own backup was not made; nothing of it is left." >&2; chmod -R u+w "$part" 2>/dev/null
        rm -rf "$part"; return 1; }
    mv "$part" "$into"
}

check_own_backup() { # folder
    grep -qs '"formatVersion":1,' "$1/backup.json" \
        || die "$1 is no own backup that this program can read: it has no backup.json of formatVersion 1."
    (cd "$1" && sha256sum --check --quiet --strict manifest-sha256.txt) >&2 \
        || die "$1 is not what was written: the lines above name what differs. Take another own backup."
}

# Loads rows and folders of bags into an instance whose database runs and whose programs do not.
load_own_backup() { # the own backup, the instance's folder
    local from=$1 data=$2 root_of_bags made
    export JADE_VAR=$data
    made=$(sed -n 's/.*"madeAt":"\([^"]*\)".*/\1/p' "$from/backup.json")
    say "Loading the database of $made"
    set -o pipefail
    gzip -dc "$from/database.sql.gz" | "$own_program/bin/service" load || return 1
    "$own_program/bin/service" migrate --quiet || return 1
    if [ -d "$from/bags" ]; then
        root_of_bags=$data/bags
        say 'Copying the folders of bags'
        # what lies here already stays: nothing is overwritten
        (cd "$from/bags" && find . -mindepth 1 -maxdepth 1 -type d -printf '%f\n') >"$data/run/bags-to-copy"
        while read -r id; do [ -e "$root_of_bags/$id" ] || printf '%s\n' "$id"; done <"$data/run/bags-to-copy" \
            | copy_bags "$from/bags" "$root_of_bags" || return 1
        rm -f "$data/run/bags-to-copy"
        give "$service_account" "$root_of_bags"
    fi
    "$own_program/bin/service" artisan jade:restored --made-at="$made" <"$from/bags.jsonl"
}
