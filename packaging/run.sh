# How Ell is run, the same from the source tree and installed. Sourced, with these set:
#   java   the Java to run with
#   jars   the folder of the jars
#   native_dir  the folder of what was unpacked from them
#   caches the folder of the start-up caches and of the parsed style
#   demo   the folder of the demo's files
# what the compiler was told in .mvn/jvm.config is for Maven; Ell itself runs with these
flags="--enable-native-access=ALL-UNNAMED -XX:+UseSerialGC -Xss4m -Dfile.encoding=UTF-8 -Dstdout.encoding=UTF-8 -Dstderr.encoding=UTF-8"
# the second compiler begins later than it would, and nothing is compiled ahead on the word of the training
# run: on a small machine both take time from the start itself; a JDK that knows the flags no more ignores them
window_flags="-XX:+IgnoreUnrecognizedVMOptions -XX:+UnlockDiagnosticVMOptions -XX:-AOTRecordTraining -XX:-AOTReplayTraining -XX:Tier4InvocationThreshold=50000 -XX:Tier4MinInvocationThreshold=20000 -XX:Tier4CompileThreshold=100000 -XX:Tier4BackEdgeThreshold=400000"
# what runs for a moment is not worth the second compiler
calc_flags="-XX:TieredStopAtLevel=1"
cache_flags="-Xlog:aot=off -Xlog:cds=off"
offscreen="-Dglass.platform=Headless -Dprism.order=sw -Djava.awt.headless=true"

# Java with what every Ell is told. A folder may have blanks in its name: what names one is never split, and
# so is no part of the flags above. With `instead=exec` it takes the place of the shell.
# shellcheck disable=SC2086
java_with() {
  ${instead:-} "$java" $flags "-Dell.demo=$demo" "-Dell.style=$caches/ell.bss" "$@"
}

# these set a variable instead of printing: a process for each answer would be felt in a sum
class_path() {
  cp=
  for jar in "$jars"/*.jar; do cp=$cp:$jar; done
  cp=${cp#:}
}

# a sum needs neither store nor screen nor paper: fewer jars to look at
calc_path() {
  cp=
  for jar in "$jars"/*.jar; do
    case ${jar##*/} in ell-desk-* | jSerialComm* | javafx-* | jgrapht* | jheaps* | apfloat* | pdfbox* | fontbox* | flyway* | sqlite* | postgresql* | HikariCP* | core-3* | commons-logging*) ;; *) cp=$cp:$jar ;; esac
  done
  cp=${cp#:}
}

# where the store's native part lies and what it is called, nothing where it was not unpacked
native() {
  store=
  named=
  [ -f "$native_dir/libsqlitejdbc.so" ] || return 0
  store="-Dorg.sqlite.lib.path=$native_dir"
  named=-Dorg.sqlite.lib.name=libsqlitejdbc.so
}

# the store's native part, unpacked once instead of at each start; $1 is the tool that reads jars
unpack_store() {
  case $(uname -s)/$(uname -m) in
    Linux/x86_64) at=org/sqlite/native/Linux/x86_64/libsqlitejdbc.so ;;
    Linux/aarch64) at=org/sqlite/native/Linux/aarch64/libsqlitejdbc.so ;;
    *) return 0 ;;
  esac
  mkdir -p "$native_dir"
  (cd "$native_dir" && rm -f libsqlitejdbc.so && "$1" xf "$jars"/sqlite-jdbc-*.jar "$at" && mv "$at" . && rm -r org) ||
    rm -f "$native_dir/libsqlitejdbc.so"
}

# Training runs of the real window and of the command line make the start-up caches; without them Ell only
# starts slower. $1 is a folder to work in.
train() {
  rm -f "$1"/train.ell* "$caches"/ell*.aot "$caches/ell.bss"
  class_path
  native
  trained="$1/train.log"
  # shellcheck disable=SC2086
  {
    java_with $offscreen -cp "$cp" ell.desk.Launcher --style "$caches/ell.bss" > "$trained" 2>&1
    java_with $named ${store:+"$store"} -cp "$cp" ell.cli.Main demo-workspace "$1/train.ell" >> "$trained" 2>&1
    java_with $window_flags $named ${store:+"$store"} $offscreen "-XX:AOTCacheOutput=$caches/ell.aot" -cp "$cp" \
      ell.desk.Launcher --train "$1/train.ell" >> "$trained" 2>&1 || rm -f "$caches/ell.aot"
    # and two for the command line: everything over a workspace, and a sum
    java_with $named ${store:+"$store"} "-XX:AOTCacheOutput=$caches/ell-cli.aot" -cp "$cp" ell.cli.Main \
      --train "$1/train.ell" >> "$trained" 2>&1 || rm -f "$caches/ell-cli.aot"
    calc_path
    java_with $calc_flags "-XX:AOTCacheOutput=$caches/ell-calc.aot" -cp "$cp" ell.cli.Main --train \
      >> "$trained" 2>&1 || rm -f "$caches/ell-calc.aot"
  }
}

cache() { # which of the caches
  cached=
  [ -f "$caches/$1.aot" ] && [ -z "${ELL_NO_CACHE:-}" ] && cached="-XX:AOTCache=$caches/$1.aot"
}

run() { # main class, arguments
  main=$1
  shift
  set_flags=
  which=ell
  class_path
  case $main in
    ell.desk.*) set_flags=$window_flags ;;
    *)
      which=ell-cli
      case ${1:-} in
        calc)
          which=ell-calc
          calc_path
          set_flags=$calc_flags
          ;;
        show | log | words | verify | new | jar | shelf | packages | ladder | trace) set_flags=$calc_flags ;;
      esac
      ;;
  esac
  native
  cache $which
  # shellcheck disable=SC2086
  instead=exec
  java_with $set_flags $named ${store:+"$store"} ${cached:+"$cached"} $cache_flags ${display_flags:-} \
    ${ELL_JAVA_FLAGS:-} -cp "$cp" "$main" "$@"
}

on_screen() {
  if [ -z "${DISPLAY:-}" ] && [ -z "${WAYLAND_DISPLAY:-}" ] && [ "$(uname)" = Linux ]; then
    return 1
  fi
  return 0
}

# What every Ell understands, wherever it stands.
door() {
  case ${1:-} in
    demo)
      shift
      if on_screen; then
        run ell.desk.Launcher --demo "$@"
      else
        echo "ell: there is no display; the demo plays the main job offscreen" >&2
        display_flags=$offscreen
        run ell.desk.Launcher --play "$@"
      fi
      ;;
    open)
      shift
      on_screen || { echo "ell: there is no display to open a window on" >&2; exit 1; }
      run ell.desk.Launcher "$@"
      ;;
    "" | --help | help)
      echo "ell demo                    the application with the demo"
      echo "ell open [FILE.ell|ADDRESS] the application with a workspace"
      run ell.cli.Main --help
      ;;
    *) run ell.cli.Main "$@" ;;
  esac
}
