package ell.work.jig;

import ell.book.BookException;
import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.jig.JigBook;
import ell.core.jig.JigMaker;
import ell.core.jig.JigPlan;
import ell.core.jig.JigSetup;
import ell.core.jig.Targets;
import ell.core.rack.Plan;
import ell.core.sheet.SheetProblem;
import ell.work.bring.KeptHoles;
import ell.work.bring.Revisions;
import ell.work.prove.Proofs;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Jigs of revisions. The last plan is kept until something that it rests on changes. Safe for
/// several threads, one at a time.
public final class Jigs implements Workspace.Listener {
  /// What is kept with a revision.
  public static final String SETUP = "jig";

  private static final double SECONDS = 8;
  private static final int KEPT = 4;

  private final Workspace space;
  private final Revisions revisions;
  private final Proofs proofs;
  private final Map<String, JigPlan> known = new LinkedHashMap<>();

  /// Those of a workspace.
  public Jigs(Workspace space, Revisions revisions, Proofs proofs) {
    this.proofs = proofs;
    this.space = space;
    this.revisions = revisions;
    space.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      synchronized (this) {
        known.clear();
      }
    }
  }

  /// What is said of the jig of a revision.
  public JigSetup setup(Revision r) throws BookException, ActException {
    try {
      return JigSetup.read(space.book().document(r.design(), r.name(), SETUP));
    } catch (SheetProblem e) {
      throw new ActException("what is kept of the jig: " + e.getMessage(), e);
    }
  }

  /// Keeps what somebody says of the jig of a revision, such as `thickness=1.0mm`; nothing behind
  /// the `=` takes it back.
  ///
  /// @return everything that was said then
  /// @throws ActException when something cannot be understood; nothing is kept then
  public JigSetup say(Revision r, List<String> words) throws BookException, ActException {
    List<String> lasting = new ArrayList<>();
    for (String word : words) {
      lasting.add(lasting(r, word));
    }
    JigSetup s = said(setup(r), lasting);
    revisions.get(r.design(), r.name());
    space.book().putDocument(r.design(), r.name(), SETUP, s.text());
    space.tell(new Change.Revision(r.design(), r.name()));
    return s;
  }

  /// A file of nets is kept as the nets that it names: it may be gone tomorrow.
  private static String lasting(Revision r, String word) throws BookException, ActException {
    int eq = word.indexOf('=');
    String asked = eq < 0 ? "" : word.substring(eq + 1).strip();
    if (eq < 0 || !word.substring(0, eq).strip().equalsIgnoreCase("reach") || asked.isEmpty()) {
      return word;
    }
    return ReachedNets.KNOWN.contains(asked.toLowerCase(Locale.ROOT))
        ? word
        : "reach=" + String.join(",", ReachedNets.named(r, asked));
  }

  private JigSetup said(JigSetup setup, List<String> words) throws ActException {
    JigSetup s = setup;
    try {
      for (String w : words) {
        s = s.say(w);
      }
      Targets.kinds(list(s.words("targets")));
    } catch (SheetProblem e) {
      throw e;
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    return s;
  }

  /// The jig of a revision.
  ///
  /// @param words said for this time only, such as `top=yes`
  /// @throws ActException when a net that is to be reached is not there
  public synchronized JigPlan plan(Plan plan, List<String> words) throws IOException, ActException {
    Revision r = plan.revision();
    JigSetup setup = said(setup(r), words);
    ReachedNets reach = ReachedNets.of(plan, setup.words("reach"), proofs.places(plan));
    String key =
        r.design()
            + "\n"
            + r.name()
            + "\n"
            + r.parts().stream().filter(p -> p.fitted()).map(p -> p.reference()).toList().hashCode()
            + "\n"
            + setup.text()
            + reach.nets()
            + plan.ladder().hashCode();
    JigPlan is = known.get(key);
    if (is != null) {
      return is;
    }
    long from = System.nanoTime();
    Optional<List<Joint>> vias = KeptHoles.vias(space.book(), r);
    List<String> told = new ArrayList<>();
    if (vias.isEmpty()) {
      told.add(
          "holes that only join layers were not kept with this revision: import its netlist again"
              + " to have them as targets");
    }
    if (plan.ladder().loads().stream().anyMatch(l -> l.guessed())) {
      told.add(
          "the current of the supply rests on loads that are guessed: say them on the ladder, and"
              + " the count of supply probes follows");
    }
    JigPlan p =
        JigMaker.plan(
            new JigMaker.From(
                r,
                vias.orElse(List.of()),
                KeptHoles.of(space.book(), r),
                plan.ladder(),
                reach.nets(),
                reach.words(),
                Targets.kinds(list(setup.words("targets"))),
                setup.words("top").equals("yes"),
                setup,
                told,
                () -> SECONDS - (System.nanoTime() - from) / 1e9));
    if (known.size() >= KEPT) {
      known.remove(known.keySet().iterator().next());
    }
    known.put(key, p);
    return p;
  }

  /// The jigs that the book speaks of, by serial number.
  public Map<String, JigBook> books() throws BookException {
    return JigBook.of(space.everywhere(Entry.Jig.class));
  }

  private static List<String> list(String words) {
    return Arrays.stream(words.split("[,\\s]+")).filter(w -> !w.isEmpty()).toList();
  }
}
