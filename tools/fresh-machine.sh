#!/usr/bin/env bash
# Tries the README's two commands on a fresh Debian 12: tools/fresh-machine.sh DIR [--demo-only] [--keep]
# Makes a minimal system below DIR, clones this checkout into it (what is committed), runs './sarnik demo' there until it
# answers and then './sarnik test', and prints what was missing. Needs root, debootstrap and 8 GB. The minimal system is kept
# in DIR/base for the next try; --keep leaves the tried one in DIR/machine too.
set -euo pipefail

die() { echo "fresh-machine: $1" >&2; exit 1; }
say() { echo "fresh-machine: $1"; }

directory="" demo_only=no keep=no
for word in "$@"; do
  case "$word" in
    --demo-only) demo_only=yes ;;
    --keep) keep=yes ;;
    -*) die "there is no option $word" ;;
    *) directory=$word ;;
  esac
done
[ -n "$directory" ] || die "usage: tools/fresh-machine.sh DIR [--demo-only] [--keep]"
[ "$(id -u)" = 0 ] || die "it makes a system of its own and has to run as root"
command -v debootstrap >/dev/null || die "debootstrap is missing. Mend it with: apt-get install debootstrap"
# In a mount namespace of its own nothing stays mounted, however it ends.
if [ -z "${FRESH_MACHINE_APART:-}" ]; then FRESH_MACHINE_APART=1 exec unshare --mount --pid --fork --kill-child "$0" "$@"; fi

checkout=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
mkdir -p "$directory"
directory=$(cd "$directory" && pwd)
base="$directory/base" machine="$directory/machine"
port=$((20000 + RANDOM % 10000))

# The machine's own way to Debian's packages, without what it has from elsewhere.
apt_sources() {
  local lists="$base/etc/apt/sources.list" parts="$base/etc/apt/sources.list.d/machine.sources"
  awk '$1 == "deb" && / bookworm(-updates|-security)? /' /etc/apt/sources.list /etc/apt/sources.list.d/*.list > "$lists.new" 2>/dev/null || true
  awk 'BEGIN { RS = ""; ORS = "\n\n" } /(^|\n)Suites:( bookworm(-updates|-security)?)+(\n|$)/' /etc/apt/sources.list.d/*.sources > "$parts.new" 2>/dev/null || true
  # A machine that has neither leaves debootstrap's own.
  if [ -s "$lists.new" ] || [ -s "$parts.new" ]; then
    mv "$lists.new" "$lists"
    mv "$parts.new" "$parts"
  else
    rm -f "$lists.new" "$parts.new"
  fi
}

make_base() {
  say "making a minimal Debian 12 in $base"
  rm -rf "$base.new"
  debootstrap --variant=minbase --include=ca-certificates,procps,git bookworm "$base.new" > "$directory/debootstrap.log" 2>&1 \
    || die "debootstrap failed; $directory/debootstrap.log says why"
  mv "$base.new" "$base"
}

inside() {
  env -i HOME=/root LANG=C.UTF-8 TERM=dumb PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin SARNIK_PORT=$port chroot "$machine" bash -c "$1"
}

[ -d "$base" ] || make_base
apt_sources
mkdir -p "$base/usr/local/share/ca-certificates"
find /usr/local/share/ca-certificates -name '*.crt' -exec cp {} "$base/usr/local/share/ca-certificates/" \;
cp -L /etc/resolv.conf /etc/hosts "$base/etc/"
chroot "$base" update-ca-certificates > /dev/null 2>&1

rm -rf "$machine"
cp -a "$base" "$machine"
mount -t proc proc "$machine/proc"
mount --rbind /dev "$machine/dev"
mount --rbind /sys "$machine/sys"
git clone -q "$checkout" "$machine/opt/sarnik"
say "cloned $(git -C "$machine/opt/sarnik" log -1 --format='%h %s')"
inside "dpkg-query -W -f '\${Package}\n' | sort" > "$directory/before.txt"

say "./sarnik demo"
seconds=$SECONDS
inside "cd /opt/sarnik && exec ./sarnik demo" > "$directory/demo.log" 2>&1 &
demo=$!
until grep -q "ready at" "$directory/demo.log"; do
  kill -0 $demo 2>/dev/null || { cat "$directory/demo.log"; tail -40 "$machine/opt/sarnik/.sarnik/build.log" 2>/dev/null || true; die "./sarnik demo ended without an answer"; }
  sleep 1
done
inside "exec 3<>/dev/tcp/127.0.0.1/$port; printf 'GET /sign-in HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3; head -1 <&3" | grep -q " 200" || die "the demo said that it is ready, but does not answer"
say "./sarnik demo answers after $((SECONDS - seconds)) s"
inside "cd /opt/sarnik && ./sarnik stop"
wait $demo || true

tested=0
if [ $demo_only = no ]; then
  say "./sarnik test"
  seconds=$SECONDS
  inside "cd /opt/sarnik && ./sarnik test" > "$directory/test.log" 2>&1 || tested=$?
  grep -E "Tests run:.*(Failures|Errors)|BUILD|ERROR" "$directory/test.log" | grep -v "Time elapsed" | tail -30 || true
  say "./sarnik test ended with $tested after $((SECONDS - seconds)) s; $directory/test.log"
fi

say "asked for by ./sarnik:"
grep -h "sarnik: installing\|sarnik: Node\|sarnik: JDK" "$directory"/demo.log "$directory"/test.log 2>/dev/null || true
inside "dpkg-query -W -f '\${Package}\n' | sort" > "$directory/after.txt"
say "$(comm -13 "$directory/before.txt" "$directory/after.txt" | wc -l) packages came with it; a list is in $directory/after.txt"
[ $keep = yes ] || { umount -R "$machine/proc" "$machine/dev" "$machine/sys"; rm -rf "$machine"; }
exit $tested
