package ell.desk.window;

import ell.desk.beep.BeepStation;
import ell.desk.heat.HeatStation;
import ell.desk.jig.JigStation;
import ell.desk.kit.KitStation;
import ell.desk.look.LookStation;
import ell.desk.order.OrderStation;
import ell.desk.power.PowerStation;
import ell.desk.print.PrintStation;
import ell.desk.prove.ProveStation;
import ell.desk.pulse.PulseStation;
import ell.desk.revise.ReviseStation;
import ell.desk.shell.DeskModel;
import ell.desk.shell.FileAsker;
import ell.desk.shell.Host;
import ell.desk.shell.Station;
import ell.desk.talk.TalkStation;
import ell.desk.trace.TraceStation;
import java.util.List;

/// The stations that ship, a line each, in the order of the work.
public final class Stations {
  private Stations() {}

  /// The stations on a desk.
  ///
  /// @param sampleMillis pause between two looks at the supply
  public static List<Station> all(DeskModel desk, FileAsker files, Host host, long sampleMillis) {
    return List.of(
        new KitStation(desk, files),
        new OrderStation(desk),
        new PrintStation(desk, files),
        new HeatStation(desk, files),
        new LookStation(desk, files),
        new BeepStation(desk),
        new PowerStation(desk, host, sampleMillis),
        new PulseStation(desk, files, host),
        new TalkStation(desk, files, host),
        new TraceStation(desk),
        new JigStation(desk, files),
        new ProveStation(desk, host),
        new ReviseStation(desk, files, host));
  }
}
