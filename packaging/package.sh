# Makes the application image and the deb. Sourced by the door of the source tree once it has built.
# The image holds a Java of its own with only the modules that are used, the jars, what must be unpacked from
# them, the start-up caches and the demo; it needs neither a JDK nor a network.

# What the jars ask for, and what they find only at run time: the parts of the database's TLS and of tongues.
modules=java.base,java.desktop,java.management,java.naming,java.net.http,java.security.jgss,java.security.sasl,java.sql,jdk.crypto.ec,jdk.httpserver,jdk.jfr,jdk.localedata,jdk.management,jdk.unsupported

package() { # where to, at first target/package; --try also installs the deb on a clean system
  try=
  out=$target/package
  for word in "$@"; do
    case $word in
      --try) try=1 ;;
      -*) echo "ell package: '$word' is unknown; ell package [FOLDER] [--try]" >&2; exit 2 ;;
      *) out=$word ;;
    esac
  done
  [ "$(uname -s)" = Linux ] || { echo "ell package: a deb is made on Linux only" >&2; exit 1; }
  mkdir -p "$out" && out=$(cd "$out" && pwd -P) || exit 1
  version=$(sed -n 's/.*<version>\(.*\)<\/version>.*/\1/p' "$root/pom.xml" | head -1)
  image "$out" || { cat "$out/package.log" >&2; echo "ell package: the image was not made" >&2; exit 1; }
  echo "$out/ell  $(du -sm "$out/ell" | cut -f1) MB, runs where it stands: bin/ell"
  if command -v dpkg-deb > /dev/null 2>&1; then
    deb "$out" || { echo "ell package: the deb was not made" >&2; exit 1; }
    echo "$made  $(du -m "$made" | cut -f1) MB"
  else
    echo "ell package: there is no dpkg-deb, so only the image was made" >&2
    [ -z "$try" ] || exit 1
  fi
  [ -z "$try" ] || sh "$root/packaging/try.sh" "$made" "$out/clean"
}

image() {
  rm -rf "$1/ell" "$1/input"
  mkdir -p "$1/input"
  cp -p "$target"/lib/*.jar "$1/input/"
  "$java_home/bin/jpackage" --type app-image --name Ell --dest "$1/image" \
    --app-version "$version" --description "A workbench for circuit boards" --vendor "Ell" \
    --input "$1/input" --main-jar "$(basename "$target"/lib/ell-desk-*.jar)" --main-class ell.desk.Launcher \
    --icon "$root/packaging/ell.png" --add-modules $modules \
    --jlink-options "--strip-debug --no-header-files --no-man-pages" > "$1/package.log" 2>&1 || return 1
  mv "$1/image/Ell" "$1/ell" && rmdir "$1/image" && rm -rf "$1/input" || return 1
  java=$1/ell/lib/runtime/bin/java
  jars=$1/ell/lib/app
  native_dir=$jars
  caches=$jars
  demo=$jars/demo
  [ -x "$java" ] || { echo "the image has no bin/java" >> "$1/package.log"; return 1; }
  cp -rp "$root/demo" "$demo"
  cp -p "$root/packaging/run.sh" "$root/LICENSE" "$jars/"
  install -m 755 "$root/packaging/door" "$1/ell/bin/ell"
  unpack_store "$java_home/bin/jar"
  unpack_window
  . "$root/packaging/run.sh"
  mkdir -p "$1/training"
  train "$1/training"
  cp "$1/training/train.log" "$1/train.log"
  rm -rf "$1/training"
  launcher "$1/ell/lib/app/Ell.cfg"
}

# the window's native parts lie beside its jars, where the toolkit looks first: nothing is unpacked at a start
unpack_window() {
  for jar in "$jars"/javafx-graphics-*-linux*.jar; do
    (cd "$jars" && "$java_home/bin/jar" tf "$jar" | grep '\.so$' | xargs "$java_home/bin/jar" xf "$jar")
  done
}

# the launcher starts what the door starts: the same jars in the same order, or the cache would not be taken
launcher() {
  {
    echo "[Application]"
    class_path
    echo "$cp" | tr ':' '\n' | sed 's|.*/|app.classpath=$APPDIR/|'
    echo "app.mainclass=ell.desk.Launcher"
    echo
    echo "[JavaOptions]"
    for flag in $flags $window_flags $named $cache_flags; do
      echo "java-options=$flag"
    done
    for what in "-Dell.demo=$demo" "-Dell.style=$caches/ell.bss" "$store" "-XX:AOTCache=$caches/ell.aot"; do
      [ -z "$what" ] || echo "java-options=${what%%=*}=\$APPDIR${what#*="$jars"}"
    done
  } > "$1"
}

# The deb is put together here and not by jpackage, which copies the image anew: the cache holds the times of
# the files that it was made from. The menu entry, the file type and the icons go where the system's own
# triggers look for them.
deb() {
  arch=$(dpkg --print-architecture)
  made=$1/ell_${version}_$arch.deb
  tree=$1/deb
  rm -rf "$tree" "$1"/ell_*.deb
  mkdir -p "$tree/DEBIAN" "$tree/opt" "$tree/usr/bin" "$tree/usr/share/applications" \
    "$tree/usr/share/mime/packages" "$tree/usr/share/doc/ell"
  cp -a "$1/ell" "$tree/opt/ell" || return 1
  ln -s /opt/ell/bin/ell "$tree/usr/bin/ell"
  cp "$root/packaging/ell.desktop" "$tree/usr/share/applications/"
  cp "$root/packaging/ell-mime.xml" "$tree/usr/share/mime/packages/ell.xml"
  cp "$root/LICENSE" "$tree/usr/share/doc/ell/copyright"
  for at in scalable:ell.svg:svg 256x256:ell.png:png; do
    IFS=: read -r size file kind <<WHERE
$at
WHERE
    for what in apps/ell mimetypes/application-x-ell; do
      mkdir -p "$tree/usr/share/icons/hicolor/$size/${what%/*}"
      cp "$root/packaging/$file" "$tree/usr/share/icons/hicolor/$size/$what.$kind"
    done
  done
  cat > "$tree/DEBIAN/control" <<CONTROL
Package: ell
Version: $version
Architecture: $arch
Maintainer: The founders of Ell <ell@localhost>
Installed-Size: $(du -sk "$tree" | cut -f1)
Section: electronics
Priority: optional
Depends: libc6, zlib1g, libgtk-3-0t64 | libgtk-3-0, libgl1, libx11-6, libxtst6, libxxf86vm1, libfreetype6, libfontconfig1
Recommends: shared-mime-info, desktop-file-utils
Suggests: postgresql
Description: workbench for turning fabricated circuit boards into boards that work
 Kits, pastes, places, heats, looks, beeps, powers, measures, loads, traces,
 proves and logs, board by board, and shows its working. It brings its own
 Java and asks no network for anything.
CONTROL
  find "$tree" -type d -exec chmod 755 {} +
  dpkg-deb --root-owner-group -Zxz -z1 --build "$tree" "$made" > "$1/deb.log" 2>&1 || { cat "$1/deb.log" >&2; return 1; }
  rm -rf "$tree"
}
