package ell.work.prove;

import ell.core.rack.Stage;
import ell.work.act.Companion;
import ell.work.act.Rule;
import ell.work.act.StageWork;
import ell.work.space.Workspace;
import java.util.List;
import java.util.Map;

/// Proofs as the workshop sees them: no board is used with something missing, and a helper proves
/// by plans that the maker has shown to work.
public final class ProveWork implements StageWork {
  private final Workspace space;
  private final Proofs proofs;

  /// The work on a workspace.
  public ProveWork(Workspace space, Proofs proofs) {
    this.space = space;
    this.proofs = proofs;
  }

  @Override
  public Stage stage() {
    return Stage.PROVE;
  }

  @Override
  public List<Rule> rules() {
    return List.of(new ShownPlan(space), new UseRule(proofs));
  }

  @Override
  public List<Companion> companions() {
    return List.of(new HandProof(proofs));
  }

  @Override
  public Map<String, String> keeps() {
    return Map.of(Proofs.PLAN, "txt", Proofs.RULES, "txt");
  }
}
