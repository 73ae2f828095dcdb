package ell.trials;

import com.tngtech.archunit.library.dependencies.SliceIdentifier;

import com.tngtech.archunit.library.dependencies.SliceAssignment;

import com.tngtech.archunit.core.domain.JavaClass;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
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
        "records and enums of the core keep no mutable fields",
        classes()
            .that()
            .resideInAPackage("ell.core.board..")
            .and()
            .areRecords()
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
