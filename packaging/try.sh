#!/bin/sh
# Installs a deb on a clean system in a folder, as somebody with a new machine would, and starts it there:
# no JDK, no Maven, no sources, no display. Making the clean system and installing what the deb depends on
# ask the packages of the system; starting Ell asks nobody.
set -eu
deb=$1
clean=$2
[ "$(id -u)" = 0 ] || { echo "ell package --try: a clean system can be made by root only" >&2; exit 1; }
command -v debootstrap > /dev/null || { echo "ell package --try: install the package debootstrap" >&2; exit 1; }
suite=$(. /etc/os-release && echo "$VERSION_CODENAME")
# the mirror that this system itself uses for its own packages, when it says one
sources=$(apt-cache policy base-files 2> /dev/null | sed -n "s|.* \(https*://[^ ]*\) $suite/main .*|\1|p" | head -1)
rm -rf "$clean"
mkdir -p "$clean"
echo "a clean $suite in $clean"
debootstrap --variant=minbase "$suite" "$clean" ${sources:+"$sources"} > "$clean.log" 2>&1 || { tail "$clean.log" >&2; exit 1; }
cp /etc/resolv.conf "$clean/etc/" 2> /dev/null || true
# a system behind a proxy says so in its own settings
grep -lsi proxy /etc/apt/apt.conf.d/* | while read -r f; do cp "$f" "$clean/etc/apt/apt.conf.d/"; done
inside() { chroot "$clean" env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root LANG=C.UTF-8 DEBIAN_FRONTEND=noninteractive "$@"; }
cp "$deb" "$clean/root/ell.deb"
mount -t proc proc "$clean/proc"
trap 'umount "$clean/proc" 2> /dev/null || true' EXIT INT TERM
inside apt-get update >> "$clean.log" 2>&1 || true
inside apt-get install -y --no-install-recommends /root/ell.deb shared-mime-info desktop-file-utils libglib2.0-bin >> "$clean.log" 2>&1 || { tail "$clean.log" >&2; exit 1; }
no() { inside sh -c "command -v $1" > /dev/null 2>&1 && { echo "the clean system has $1" >&2; exit 1; }; echo "no $1"; }
no java
no javac
no mvn
# from here on without a network, but for the way of this machine to itself: the simulated bench is there
if unshare -n sh -c 'ip link set lo up' 2> /dev/null; then
  echo "no network"
  alone() { unshare -n sh -c 'ip link set lo up; exec "$@"' - chroot "$clean" env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root LANG=C.UTF-8 "$@"; }
else
  echo "the network cannot be taken away here; install iproute2 and be root"
  alone() { inside "$@"; }
fi
alone ell demo /root/demo > "$clean.demo" 2>&1 || { cat "$clean.demo" >&2; exit 1; }
tail -3 "$clean.demo"
alone ell verify /root/demo/marram.ell
alone ell show /root/demo/marram.ell | head -5
alone sh -c 'cp /root/demo/marram.ell /root/a.ell; gio info -a standard::content-type /root/a.ell' | grep -q application/x-ell && echo "the file type is known"
alone sh -c 'test -f /usr/share/applications/ell.desktop && grep -q ell.desktop /usr/share/applications/mimeinfo.cache' && echo "the menu opens it"
# the caches are taken, not only there: without them it starts slower, silently
alone env ELL_JAVA_FLAGS="-XX:AOTMode=on" ell show /root/demo/marram.ell > /dev/null && echo "the start-up cache is taken"
inside apt-get remove -y ell >> "$clean.log" 2>&1
[ ! -e "$clean/opt/ell" ] && [ ! -e "$clean/usr/bin/ell" ] && echo "removed without a trace"
