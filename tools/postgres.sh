#!/usr/bin/env bash
# A PostgreSQL of one's own on loopback: tools/postgres.sh start DIR [--fast] | stop DIR | recreate DIR
# | backup DIR FILE | restore DIR FILE | run DIR DATABASE
# start prints the port; user and database are "sarnik", the password stands in DIR/password. backup writes all that is in
# the database into one file, as it is at one moment, while it is used; restore reads it into a database that is empty.
# run reads statements from its input and runs them in a database of the server's.
# --fast is for tests: nothing is forced to disk.
set -euo pipefail

die() { echo "$1" >&2; exit 1; }

server_bin() {
  local bin
  bin=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)
  [ -n "$bin" ] && [ -x "$bin/initdb" ] || die "PostgreSQL is not installed. Mend it with: apt-get install postgresql"
  echo "$bin"
}

# PostgreSQL refuses to run as root.
as_server() {
  if [ "$(id -u)" = 0 ]; then (cd "$dir" && setpriv --reuid=postgres --regid=postgres --init-groups "$@"); else (cd "$dir" && "$@"); fi
}

check_passable() {
  [ "$(id -u)" = 0 ] || return 0
  as_server test -x "$dir" || die "The user postgres cannot enter $dir. Choose a directory that it can, with: SARNIK_HOME=/var/lib/sarnik ./sarnik …"
}

is_running() { as_server "$bin/pg_ctl" -D "$dir/cluster" status >/dev/null 2>&1; }
is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
sql() { PGPASSWORD=$(cat "$dir/password") "$bin/psql" -qAtX -h 127.0.0.1 -p "$(cat "$dir/port")" -U sarnik -d "${2:-postgres}" -c "$1"; }

free_port() {
  local port
  for _ in $(seq 50); do
    port=$((20000 + RANDOM % 12000))
    if is_free "$port"; then echo "$port"; return; fi
  done
  die "No free port was found for PostgreSQL between 20000 and 32000."
}

make_cluster() {
  rm -rf "$dir/cluster.new" "$dir/password.new"
  (umask 077; head -c 18 /dev/urandom | base64 | tr -d '+/=\n' > "$dir/password.new")
  mkdir -m 0700 "$dir/cluster.new"
  if [ "$(id -u)" = 0 ]; then chown postgres: "$dir/cluster.new" "$dir/password.new"; fi
  as_server "$bin/initdb" -D "$dir/cluster.new" -U sarnik --pwfile="$dir/password.new" -A scram-sha-256 -E UTF8 --locale=C.UTF-8 >/dev/null
  mv "$dir/password.new" "$dir/password"
  mv "$dir/cluster.new" "$dir/cluster"
}

# Processes of a server that has ended at once hold its port and its memory until they have seen so; one that computes does not see it.
left_over() {
  local one pid
  while read -r one; do
    pid=${one#/proc/}; pid=${pid%/cwd}
    [ "$(cat "/proc/$pid/comm" 2>/dev/null)" = postgres ] && echo "$pid"
  done < <(as_server find /proc -maxdepth 2 -name cwd -lname "$(realpath "$dir")/cluster" 2>/dev/null) || true
}
await_left_over() {
  local tenth left
  for tenth in $(seq 100); do
    left=$(left_over)
    [ -n "$left" ] || return 0
    # Unquoted, as there may be several.
    [ "$tenth" -lt 30 ] || kill -QUIT $left 2>/dev/null || true
    sleep 0.1
  done
  die "Processes of a PostgreSQL that has ended still run: $(echo $left). End them, then start again."
}

start() {
  mkdir -p "$dir"
  if [ "$(id -u)" = 0 ]; then chmod a+x "$dir"; fi
  check_passable
  [ -d "$dir/cluster" ] || make_cluster
  if ! is_running; then
    local port
    await_left_over
    port=$(cat "$dir/port" 2>/dev/null || true)
    if [ -z "$port" ] || ! is_free "$port"; then port=$(free_port); echo "$port" > "$dir/port"; fi
    local options="-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_wal_size=2GB"
    [ "$fast" = yes ] && options="$options -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
    as_server "$bin/pg_ctl" -D "$dir/cluster" -l "$dir/cluster/server.log" -o "$options" -w -t 60 start >/dev/null 2>&1 \
      || die "PostgreSQL did not start; $dir/cluster/server.log says why."
  fi
  "$bin/pg_isready" -q -t 30 -h 127.0.0.1 -p "$(cat "$dir/port")" || die "PostgreSQL does not answer on port $(cat "$dir/port")."
  [ "$(sql "SELECT 1 FROM pg_database WHERE datname = 'sarnik'")" = 1 ] || sql "CREATE DATABASE sarnik"
  cat "$dir/port"
}

server_program() { PGPASSWORD=$(cat "$dir/password") "$bin/$1" -h 127.0.0.1 -p "$(cat "$dir/port")" -U sarnik "${@:2}"; }

backup() {
  [ -e "$1" ] && die "$1 is there already. Choose another name, so that no backup is written over."
  # Whole or not at all: a backup that was cut off must not look like one.
  # Who is signed in just now, and what only waits to be looked over, is nothing to go back to.
  (umask 077; server_program pg_dump -d sarnik --format=custom --compress=6 --exclude-table-data='sessions*' --exclude-table-data='waiting_*' \
    --exclude-table-data=instances --exclude-table-data=wrong_tries --file="$1.part") || { rm -f "$1.part"; die "The backup could not be written."; }
  mv "$1.part" "$1"
}

restore() {
  [ -f "$1" ] || die "There is no file $1."
  [[ "$("$bin/pg_restore" --list "$1" 2>/dev/null)" == *"TABLE DATA public people "* ]] || die "$1 is no backup of Sarnik, or not all of it."
  [ "$(sql "SELECT count(*) FROM information_schema.tables WHERE table_schema IN ('public', 'rows')" sarnik)" = 0 ] \
    || die "The database is not empty. A backup is restored into an empty place only, so that nothing is lost."
  server_program pg_restore -d sarnik --exit-on-error --single-transaction --no-owner --no-privileges "$1" \
    || die "The backup could not be read; nothing of it was kept."
}

[ $# -ge 2 ] || die "usage: tools/postgres.sh start|stop|recreate|backup|restore|run DIR [FILE|DATABASE] [--fast]"
dir=$(mkdir -p "$2" && cd "$2" && pwd)
fast=no; [ "${3:-}" = --fast ] && fast=yes
bin=$(server_bin)
case "$1" in
  start) start ;;
  stop) if [ -d "$dir/cluster" ] && is_running; then as_server "$bin/pg_ctl" -D "$dir/cluster" -m fast -w stop >/dev/null; fi ;;
  recreate) sql "DROP DATABASE IF EXISTS sarnik WITH (FORCE)"; sql "CREATE DATABASE sarnik" ;;
  backup) backup "${3:?the file to write}" ;;
  restore) restore "${3:?the file to read}" ;;
  run) server_program psql -qAtX -v ON_ERROR_STOP=1 -d "${3:?the database}" ;;
  *) die "usage: tools/postgres.sh start|stop|recreate|backup|restore|run DIR [FILE|DATABASE] [--fast]" ;;
esac
