package ell.trials;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.domain.properties.HasName;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.library.dependencies.SliceAssignment;
import com.tngtech.archunit.library.dependencies.SliceIdentifier;
import ell.book.Build;
import ell.core.rack.Progress;
import ell.core.rack.Sections;
import ell.core.rack.Stage;
import ell.desk.shell.Station;
import ell.work.Stages;
import ell.work.act.StageWork;
import ell.work.tape.VerbTable;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What may depend on what: the drawing in docs/architecture.md, held.
public class HouseTest {
  private JavaClasses house;

  @BeforeClass
  public void read() {
    house =
        new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("ell");
    assertTrue(house.size() > 150, "the whole house was read: " + house.size());
  }

  @DataProvider
  Object[][] rules() {
    return new Object[][] {
      {
        "the core touches no file, socket, store, screen or clock",
        noClasses()
            .that()
            .resideInAPackage("ell.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "java.io..",
                "java.nio.file..",
                "java.net..",
                "java.sql..",
                "javafx..",
                "java.util.concurrent..")
      },
      {
        "the core reads no wall clock",
        noClasses()
            .that()
            .resideInAPackage("ell.core..")
            .should()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(System.class, "nanoTime")
            .orShould()
            .callMethod(java.time.OffsetDateTime.class, "now")
            .orShould()
            .callMethod(java.time.LocalDate.class, "now")
      },
      {
        "the core uses nothing of the house",
        noClasses()
            .that()
            .resideInAPackage("ell.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "ell.files..", "ell.book..", "ell.bench..", "ell.work..", "ell.cli..", "ell.desk..")
      },
      {
        "files, book and bench do not see each other, nor what stands on them",
        noClasses()
            .that()
            .resideInAPackage("ell.files..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "ell.book..", "ell.bench..", "ell.work..", "ell.cli..", "ell.desk..")
      },
      {
        "book",
        noClasses()
            .that()
            .resideInAPackage("ell.book..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "ell.files..", "ell.bench..", "ell.work..", "ell.cli..", "ell.desk..")
      },
      {
        "bench",
        noClasses()
            .that()
            .resideInAPackage("ell.bench..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "ell.files..", "ell.book..", "ell.work..", "ell.cli..", "ell.desk..")
      },
      {
        "cli and desk never see each other",
        noClasses()
            .that()
            .resideInAPackage("ell.cli..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("ell.desk..", "javafx..")
      },
      {
        "desk",
        noClasses()
            .that()
            .resideInAPackage("ell.desk..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("ell.cli..")
      },
      {
        "no screen outside the desk (and the bare window it is timed against)",
        noClasses()
            .that()
            .resideOutsideOfPackages("ell.desk..", "ell.trials..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx..")
      },
      {
        "models know no nodes",
        noClasses()
            .that()
            .resideInAPackage("ell.desk..")
            .and()
            .haveSimpleNameEndingWith("Model")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("javafx.scene..", "javafx.stage..")
      },
      {
        "views call neither store nor instrument",
        noClasses()
            .that()
            .resideInAPackage("ell.desk..")
            .and()
            .haveSimpleNameEndingWith("View")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("ell.book..", "ell.bench..", "java.sql..", "java.net..")
      },
      {
        "what is drawn calls neither store nor instrument, whatever it is called",
        noClasses()
            .that()
            .areAssignableTo(javafx.scene.Node.class)
            .should()
            .dependOnClassesThat(
                // a build is only a value
                JavaClass.Predicates.resideInAnyPackage(
                        "ell.book..", "ell.bench..", "java.sql..", "java.net..")
                    .and(DescribedPredicate.not(HasName.Predicates.name(Build.class.getName()))))
      },
      {
        "what the core keeps of a board and its log is never changed",
        classes()
            .that()
            .resideInAnyPackage("ell.core.board..", "ell.core.entry..", "ell.core.quantity..")
            .and()
            .areNotEnums()
            .and()
            .haveSimpleNameNotEndingWith("Builder")
            .should()
            .haveOnlyFinalFields()
      },
    };
  }

  @Test(dataProvider = "rules")
  public void theHouseIsHeld(String words, ArchRule rule) {
    rule.check(house);
  }

  /// Packages of one module as slices, each package by its whole name, the root of the module too.
  private static SliceAssignment packagesOf(String module) {
    return new SliceAssignment() {
      @Override
      public SliceIdentifier getIdentifierOf(JavaClass c) {
        String name = c.getPackageName();
        return name.equals("ell." + module) || name.startsWith("ell." + module + ".")
            ? SliceIdentifier.of(name)
            : SliceIdentifier.ignore();
      }

      @Override
      public String getDescription() {
        return "packages of " + module;
      }
    };
  }

  @DataProvider
  Object[][] modules() {
    return Stream.of("core", "files", "book", "bench", "work", "cli", "desk", "trials")
        .map(m -> new Object[] {m})
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "modules")
  public void noModuleHasAPackageCycle(String module) {
    slices().assignedFrom(packagesOf(module)).should().beFreeOfCycles().check(house);
  }

  /// A record that holds a list, a map or a set has its own copy of it: nobody who made it can
  /// change it afterwards.
  @Test
  public void recordsOfTheCoreCopyWhatTheyHold() {
    Set<String> kinds = Set.of("java.util.List", "java.util.Map", "java.util.Set");
    List<String> sharing = new ArrayList<>();
    int asked = 0;
    for (JavaClass c : house) {
      boolean holds =
          c.isRecord()
              && c.getModifiers().contains(JavaModifier.PUBLIC)
              && c.getPackageName().startsWith("ell.core")
              && c.getFields().stream()
                  .filter(f -> !f.getModifiers().contains(JavaModifier.STATIC))
                  .anyMatch(f -> kinds.contains(f.getRawType().getName()));
      if (!holds) {
        continue;
      }
      asked++;
      boolean copies =
          c.getConstructors().stream()
              .flatMap(k -> k.getMethodCallsFromSelf().stream())
              .map(call -> call.getTarget().getName())
              .anyMatch(
                  n -> Set.of("copyOf", "toList").contains(n) || n.startsWith("unmodifiable"));
      if (!copies) {
        sharing.add(c.getName());
      }
    }
    assertTrue(asked > 30, asked + " records hold something");
    assertTrue(sharing.isEmpty(), String.join("\n", sharing));
  }

  /// A public method of the core, static or not, that refuses what it is given says so.
  @Test
  public void whatThrowsInTheCoreSaysSo() throws IOException {
    Pattern method =
        Pattern.compile(
            "((?:^ *///.*\\n)*)(?:^ *@\\w+.*\\n)*^  public (?:static )?"
                + "(?!record|enum|interface|sealed|final class|class)([^\\n;{=]*\\([^{;]*?\\))"
                + "(?:\\s*throws [\\w., ]+)? *\\{\\n",
            Pattern.MULTILINE);
    Pattern refuses =
        Pattern.compile("throw new \\w*(?:Illegal|NumberFormat)\\w*Exception|Check\\.\\w+\\(");
    List<String> silent = new ArrayList<>();
    int says = 0;
    List<Path> sources;
    try (Stream<Path> all = Files.walk(Path.of("../core/src/main/java"))) {
      sources = all.filter(f -> f.toString().endsWith(".java")).toList();
    }
    for (Path source : sources) {
      String text = Files.readString(source);
      for (Matcher m = method.matcher(text); m.find(); ) {
        String body = body(text, m.end());
        if (refuses.matcher(body).find() && !body.contains("catch (")) {
          says++;
          if (!m.group(1).contains("@throws")) {
            silent.add(source.getFileName() + ": " + m.group(2).replaceAll("\\s+", " "));
          }
        }
      }
    }
    assertTrue(says > 50, "found " + says);
    assertTrue(silent.isEmpty(), String.join("\n", silent));
  }

  private static String body(String text, int from) {
    int depth = 1;
    int at = from;
    while (depth > 0 && at < text.length()) {
      char c = text.charAt(at++);
      depth += c == '{' ? 1 : c == '}' ? -1 : 0;
    }
    return text.substring(from, at);
  }

  /// A rule that must fail does fail: the reading of the classes works.
  @Test
  public void aFalseRuleFails() {
    assertThrows(
        AssertionError.class,
        () ->
            noClasses()
                .that()
                .resideInAPackage("ell.work..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("ell.core..")
                .check(house));
  }

  private static Stream<Path> sources(String part) throws IOException {
    return Files.walk(Path.of(".."))
        .filter(p -> p.toString().contains("/src/" + part + "/") && p.toString().endsWith(".java"));
  }

  @Test
  public void everyPackageHasASignOnItsDoor() throws IOException {
    try (Stream<Path> all = sources("main")) {
      List<Path> without =
          all.map(Path::getParent)
              .distinct()
              .filter(p -> !Files.exists(p.resolve("package-info.java")))
              .toList();
      assertTrue(without.isEmpty(), without.toString());
    }
  }

  @Test
  public void publicTypesAreDocumented() throws IOException {
    try (Stream<Path> all = sources("main")) {
      for (Path p : all.filter(f -> !f.endsWith("package-info.java")).toList()) {
        String text = Files.readString(p);
        int at = text.indexOf("\npublic ");
        if (at > 0) {
          String before = text.substring(0, at).stripTrailing();
          String last = before.substring(before.lastIndexOf('\n') + 1);
          assertTrue(
              last.startsWith("///") || last.startsWith("@") || before.endsWith(")"),
              p + ": " + last);
        }
      }
    }
  }

  @DataProvider
  Object[][] stages() {
    return Stage.ALL.stream()
        .filter(Stage::built)
        .map(s -> new Object[] {s.key(), s.title()})
        .toArray(Object[][]::new);
  }

  /// Each stage that is built has its rooms under its own name, and one station.
  @Test(dataProvider = "stages")
  public void eachStageHasItsRooms(String key, String title) {
    for (String module : List.of("core", "work", "cli", "desk")) {
      Path room = Path.of("../" + module + "/src/main/java/ell/" + module + "/" + key);
      assertTrue(Files.isDirectory(room), "no room " + room);
    }
    for (String name : List.of("Facts", "Section")) {
      // the kit's progress and section need its facts; a stage without a record has neither
      assertTrue(
          Files.exists(
              Path.of("../core/src/main/java/ell/core/" + key + "/" + title + name + ".java")),
          title + name);
    }
    for (String name : List.of("Station", "Model", "View", "Margin", "Keys")) {
      assertTrue(
          Files.exists(
              Path.of("../desk/src/main/java/ell/desk/" + key + "/" + title + name + ".java")),
          title + name);
    }
    assertTrue(Files.exists(Path.of("../docs/" + key + ".md")), "a page in docs");
    assertTrue(Files.exists(Path.of("../docs/screenshots/" + key + ".png")), "a picture in docs");
    long stations =
        house.stream()
            .filter(c -> c.getPackageName().equals("ell.desk." + key))
            .filter(c -> c.isAssignableTo(Station.class))
            .count();
    assertEquals(stations, 1, "stations of " + title);
    assertTrue(
        house.stream()
            .filter(c -> c.getPackageName().equals("ell.work." + key))
            .anyMatch(c -> c.isAssignableTo(StageWork.class)),
        title + " has a work");
    assertTrue(Progress.ALL.stream().anyMatch(p -> p.stage().key().equals(key)), "progress");
    assertTrue(Sections.ALL.stream().anyMatch(s -> s.stage().key().equals(key)), "a section");
    assertTrue(
        Stages.SHIPPED.verbs().stream()
            .anyMatch(v -> v.stage().filter(s -> s.key().equals(key)).isPresent()),
        "a word of the tape");
  }

  @Test
  public void whatIsNotBuiltIsAbsent() {
    for (Stage s : Stage.ALL) {
      assertEquals(Progress.ALL.stream().anyMatch(p -> p.stage().equals(s)), s.built(), s.title());
    }
  }

  /// The table of words in the page on the book is the list of verbs, letter for letter.
  @Test
  public void thePageOnTheBookHasTheTapesWords() throws IOException {
    String page = Files.readString(Path.of("../docs/book.md"));
    assertTrue(
        page.contains(VerbTable.of(Stages.SHIPPED.verbs())),
        "put the output of 'ell words --table' into docs/book.md");
  }

  /// Nothing names a machine, a file outside the project, or the words that do not belong here.
  @Test
  public void nothingOfThisMachineStandsInTheTree() throws IOException {
    try (Stream<Path> all = Stream.concat(sources("main"), sources("test"))) {
      for (Path p : all.toList()) {
        String text = Files.readString(p);
        for (String word : List.of("/wo" + "rk/", "../sha" + "red", "/tmp/" + "t")) {
          assertFalse(text.contains(word), p + " holds " + word);
        }
      }
    }
  }
}
