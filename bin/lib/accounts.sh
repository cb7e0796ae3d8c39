# shellcheck shell=bash
# Whose accounts the services run under, and how settings are filled in. Sourced, not run.

# Two accounts that can do nothing else: what an owner's data is in, and the database. Where nobody with more rights
# starts the product, all of it runs as who started it.
service_account=${JADE_ACCOUNT:-jade-step}
database_account=$service_account-db
export JADE_ACCOUNT=$service_account
# the largest that may be sent; domain figures: a device of 1 TB, a package several times today's
largest_bag=1100g
largest_package=64g

is_root() { [ "$(id -u)" -eq 0 ]; }

# Goes on as an account, for good: without rights, and without a way to get any.
run_as() {
    is_root || return 0
    local account=$1
    shift
    exec setpriv --reuid="$account" --regid="$account" --init-groups --inh-caps=-all --no-new-privs --pdeathsig TERM \
        env HOME="$JADE_VAR/home" USER="$account" LOGNAME="$account" "$@"
}

need_accounts() {
    is_root || return 0
    local account
    for account in "$service_account" "$database_account"; do
        getent passwd "$account" >/dev/null \
            || useradd --system --user-group --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin \
                --comment 'Jade Step' "$account" \
            || die "The account $account could not be made."
    done
}

# Gives files to an account, where there are rights to.
give() {
    local account=$1
    shift
    ! is_root || chown -R "$account:$account" "$@"
}

fill_in() { # template, file, NAME=value …
    local text pair
    text=$(<"$1")
    for pair in "${@:3}"; do text=${text//"@${pair%%=*}@"/"${pair#*=}"}; done
    ! [[ $text =~ @[A-Z_]+@ ]] || { printf '%s: nothing is known for %s\n' "$1" "${BASH_REMATCH[0]}" >&2; return 1; }
    printf '%s\n' "$text" >"$2"
}

make_database() {
    mariadb-install-db --no-defaults --auth-root-authentication-method=normal --user="$(id -un)" --datadir="$1" \
        --skip-test-db
}
