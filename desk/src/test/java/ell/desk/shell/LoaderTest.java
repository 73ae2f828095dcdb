package ell.desk.shell;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.work.space.ActException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.BooleanSupplier;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Computing aside, with executors that a test steps: late answers, wrong orders, failures.
public class LoaderTest {
  private Stepped work;
  private Stepped ui;
  private List<String> shown;
  private Loader<String> loader;

  @BeforeMethod
  public void make() {
    work = new Stepped();
    ui = new Stepped();
    shown = new ArrayList<>();
    loader = new Loader<>(work, ui, "the tide", shown::add);
  }

  @Test
  public void anAnswerIsShownOnTheInterfaceThreadOnly() {
    assertTrue(loader.load("a", _ -> "one"));
    assertTrue(loader.busy());
    work.all();
    assertTrue(shown.isEmpty(), "worked out, but nobody was told yet");
    ui.all();
    assertEquals(shown, List.of("one"));
    assertEquals(loader.stateProperty().get(), new Loader.State.Done());
  }

  @Test
  public void theSameQuestionIsAskedOnce() {
    assertTrue(loader.load("a", _ -> "one"));
    assertFalse(loader.load("a", _ -> "two"));
    work.all();
    ui.all();
    assertFalse(loader.load("a", _ -> "three"));
    assertEquals(work.waiting(), 0);
    assertTrue(loader.load("b", _ -> "four"));
    work.all();
    ui.all();
    assertEquals(shown, List.of("one", "four"));
  }

  @Test
  public void aLateAnswerNeverOverwritesANewerOne() {
    loader.load("a", _ -> "old");
    loader.load("b", _ -> "new");
    work.last(); // the newer question is worked out first
    work.one();
    List<Runnable> told = ui.take();
    told.get(0).run();
    told.get(1).run();
    assertEquals(shown, List.of("new"));
    loader.load("c", _ -> "third");
    work.all();
    List<Runnable> late = ui.take();
    loader.load("d", _ -> "fourth");
    late.forEach(Runnable::run);
    assertEquals(shown, List.of("new"), "an answer on its way to the screen is old as well");
    work.all();
    ui.all();
    assertEquals(shown, List.of("new", "fourth"));
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] all = new Object[40][];
    for (int i = 0; i < all.length; i++) {
      all[i] = new Object[] {i};
    }
    return all;
  }

  /// Whatever the order in which work ends and answers arrive: what is shown last is the answer to
  /// what was asked last, and no answer is older than one that was shown before.
  @Test(dataProvider = "seeds")
  public void anyInterleaving(int seed) {
    Random random = new Random(seed);
    int asked = 0;
    List<Runnable> works = new ArrayList<>();
    List<Runnable> tells = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      works.addAll(work.take());
      tells.addAll(ui.take());
      switch (random.nextInt(4)) {
        case 0 -> {
          int mine = ++asked;
          loader.load(mine, _ -> String.valueOf(mine));
        }
        case 1 -> {
          if (!works.isEmpty()) {
            works.remove(random.nextInt(works.size())).run();
          }
        }
        case 2 -> {
          if (!tells.isEmpty()) {
            tells.remove(random.nextInt(tells.size())).run();
          }
        }
        default -> {
          if (random.nextInt(4) == 0) {
            loader.cancel();
          }
        }
      }
    }
    int last = ++asked;
    loader.load(last, _ -> String.valueOf(last));
    works.addAll(work.take());
    works.forEach(Runnable::run);
    tells.addAll(ui.take());
    java.util.Collections.shuffle(tells, random);
    tells.forEach(Runnable::run);
    assertEquals(shown.getLast(), String.valueOf(last));
    for (int i = 1; i < shown.size(); i++) {
      assertTrue(
          Integer.parseInt(shown.get(i)) > Integer.parseInt(shown.get(i - 1)), shown.toString());
    }
  }

  @DataProvider
  Object[][] failures() {
    return new Object[][] {
      {new IOException("the disk is full"), "the tide could not be worked out: the disk is full"},
      {
        new ActException("there is no board"), "the tide could not be worked out: there is no board"
      },
      {
        new IllegalStateException("pin 4"),
        "the tide could not be worked out: IllegalStateException: pin 4"
      },
      {
        new NullPointerException(),
        "the tide could not be worked out: java.lang.NullPointerException"
      },
    };
  }

  @Test(dataProvider = "failures")
  public void aFailureIsToldAndCanBeTriedAgain(Exception problem, String words) {
    int[] tries = {0};
    Loader.Work<String> how =
        _ -> {
          if (tries[0]++ == 0) {
            switch (problem) {
              case IOException e -> throw e;
              case ActException e -> throw e;
              default -> throw (RuntimeException) problem;
            }
          }
          return "mended";
        };
    loader.load("a", how);
    work.all();
    ui.all();
    assertEquals(loader.stateProperty().get(), new Loader.State.Failed(words));
    assertTrue(shown.isEmpty());
    loader.again();
    work.all();
    ui.all();
    assertEquals(shown, List.of("mended"));
    assertTrue(loader.load("b", _ -> "next"), "and life goes on");
  }

  @Test
  public void theSameQuestionIsAskedAnewAfterAFailure() {
    loader.load(
        "a",
        _ -> {
          throw new IOException("gone");
        });
    work.all();
    ui.all();
    assertTrue(loader.load("a", _ -> "there"));
    work.all();
    ui.all();
    assertEquals(shown, List.of("there"));
  }

  /// An error of the machine is told as well, and still ends the thread that met it.
  @Test
  public void anErrorIsToldAndPassedOn() {
    loader.load(
        "a",
        _ -> {
          throw new StackOverflowError("too deep");
        });
    assertThrows(StackOverflowError.class, work::one);
    ui.all();
    assertEquals(
        loader.stateProperty().get(),
        new Loader.State.Failed("the tide could not be worked out: StackOverflowError: too deep"));
  }

  @Test
  public void whatIsCancelledIsTold() {
    BooleanSupplier[] stop = new BooleanSupplier[1];
    loader.load(
        "a",
        cancelled -> {
          stop[0] = cancelled;
          return "half";
        });
    work.all();
    assertFalse(stop[0].getAsBoolean());
    loader.cancel();
    assertTrue(stop[0].getAsBoolean(), "long work can look whether anybody waits");
    ui.all();
    assertTrue(shown.isEmpty());
    assertEquals(loader.stateProperty().get(), new Loader.State.Idle());
    assertTrue(loader.load("a", _ -> "whole"), "what was cancelled can be asked again");
    loader.load("b", _ -> "other");
    assertTrue(stop[0].getAsBoolean());
  }

  @Test
  public void nothingIsAskedAgainWhereNothingWasAsked() {
    loader.again();
    loader.cancel();
    loader.forget();
    assertEquals(work.waiting(), 0);
    assertEquals(loader.stateProperty().get(), new Loader.State.Idle());
  }
}
