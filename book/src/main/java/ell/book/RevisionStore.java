package ell.book;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Revisions, their documents and builds in the tables. Callers hold the transaction.
public final class RevisionStore {
  private final Connection db;

  RevisionStore(Connection db) {
    this.db = db;
  }

  /// A revision's two names.
  public record Id(String design, String name) {}

  List<Id> list() throws SQLException {
    List<Id> found = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT design, name FROM revision ORDER BY id")) {
      while (r.next()) {
        found.add(new Id(r.getString(1), r.getString(2)));
      }
    }
    return List.copyOf(found);
  }

  private long id(String design, String name) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT id FROM revision WHERE design = ? AND name = ?")) {
      p.setString(1, design);
      p.setString(2, name);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? r.getLong(1) : -1;
      }
    }
  }

  void store(Revision revision, String at) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT INTO revision (design, name, imported) VALUES (?,?,?)")) {
      p.setString(1, revision.design());
      p.setString(2, revision.name());
      p.setString(3, at);
      p.executeUpdate();
    }
    long id = id(revision.design(), revision.name());
    parts(id, revision);
    joints(id, revision);
    corners(id, revision.outline());
  }

  /// Puts other parts, joints and corners in the place of those of a revision that is there.
  void replace(Revision revision, String at) throws SQLException {
    long id = id(revision.design(), revision.name());
    for (String table : List.of("part", "joint", "corner")) {
      try (PreparedStatement p =
          db.prepareStatement("DELETE FROM " + table + " WHERE revision = ?")) {
        p.setLong(1, id);
        p.executeUpdate();
      }
    }
    try (PreparedStatement p =
        db.prepareStatement("UPDATE revision SET imported = ? WHERE id = ?")) {
      p.setString(1, at);
      p.setLong(2, id);
      p.executeUpdate();
    }
    parts(id, revision);
    joints(id, revision);
    corners(id, revision.outline());
  }

  private void parts(long id, Revision revision) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT INTO part VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)")) {
      int position = 0;
      for (Part part : revision.parts()) {
        Optional<Part.Spot> spot = part.place();
        p.setLong(1, id);
        p.setInt(2, position++);
        p.setString(3, part.reference());
        p.setString(4, part.value());
        p.setString(5, part.packageName());
        p.setString(6, part.code());
        p.setString(7, part.description());
        p.setInt(8, part.fitted() ? 1 : 0);
        p.setInt(9, part.key() ? 1 : 0);
        p.setString(10, String.join(" ", part.alternates()));
        p.setString(11, part.block());
        Book.nullable(p, 12, spot.map(Part.Spot::xMm).orElse(Double.NaN));
        Book.nullable(p, 13, spot.map(Part.Spot::yMm).orElse(Double.NaN));
        Book.nullable(p, 14, spot.map(Part.Spot::rotationDeg).orElse(Double.NaN));
        p.setInt(15, part.side().ordinal());
        Book.nullable(p, 16, part.massGrams());
        Book.nullable(p, 17, part.unitCost());
        p.setString(18, String.join(" ", part.variants()));
        p.setInt(19, part.spares());
        p.addBatch();
      }
      p.executeBatch();
    }
  }

  private void joints(long id, Revision revision) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("INSERT INTO joint VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)")) {
      int position = 0;
      for (Joint j : revision.joints()) {
        p.setLong(1, id);
        p.setInt(2, position++);
        p.setString(3, j.part());
        p.setString(4, j.pin());
        p.setString(5, j.net());
        p.setDouble(6, j.xMm());
        p.setDouble(7, j.yMm());
        p.setString(8, j.reach().name());
        p.setInt(9, j.hole() ? 1 : 0);
        p.setDouble(10, j.drillMm());
        p.setInt(11, j.plated() ? 1 : 0);
        p.setDouble(12, j.widthMm());
        p.setDouble(13, j.heightMm());
        p.setDouble(14, j.rotationDeg());
        p.setInt(15, j.middle() ? 1 : 0);
        p.setInt(16, j.mask());
        p.addBatch();
        if (position % 10_000 == 0) {
          p.executeBatch();
        }
      }
      p.executeBatch();
    }
  }

  private void corners(long id, Outline outline) throws SQLException {
    try (PreparedStatement p = db.prepareStatement("INSERT INTO corner VALUES (?,?,?,?,?)")) {
      for (int loop = 0; loop < outline.loops().size(); loop++) {
        int position = 0;
        for (Outline.Point point : outline.loops().get(loop)) {
          p.setLong(1, id);
          p.setInt(2, loop);
          p.setInt(3, position++);
          p.setDouble(4, point.xMm());
          p.setDouble(5, point.yMm());
          p.addBatch();
        }
      }
      p.executeBatch();
    }
  }

  Optional<Revision> load(String design, String name) throws SQLException {
    long id = id(design, name);
    if (id < 0) {
      return Optional.empty();
    }
    return Optional.of(new Revision(design, name, loadParts(id), loadJoints(id), loadOutline(id)));
  }

  private List<Part> loadParts(long id) throws SQLException {
    List<Part> parts = new ArrayList<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT reference, value, package, code, description, fitted, key, alternates, block, x, y, rotation, side, mass, cost, variants, spares"
                + " FROM part WHERE revision = ? ORDER BY position")) {
      p.setLong(1, id);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          double x = real(r, 10);
          parts.add(
              new Part(
                  r.getString(1),
                  r.getString(2),
                  r.getString(3),
                  r.getString(4),
                  r.getString(5),
                  r.getBoolean(6),
                  r.getBoolean(7),
                  words(r.getString(8)),
                  r.getString(9),
                  Double.isNaN(x)
                      ? Optional.empty()
                      : Optional.of(
                          new Part.Spot(x, real(r, 11), real(r, 12), Side.values()[r.getInt(13)])),
                  real(r, 14),
                  real(r, 15),
                  words(r.getString(16)),
                  r.getInt(17)));
        }
      }
    }
    return parts;
  }

  private static List<String> words(String text) {
    return text.isEmpty() ? List.of() : List.of(text.split(" "));
  }

  private List<Joint> loadJoints(long id) throws SQLException {
    List<Joint> joints = new ArrayList<>();
    Map<String, String> names = new java.util.HashMap<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT part, pin, net, x, y, reach, hole, drill, plated, width, height, rotation, middle, mask FROM joint"
                + " WHERE revision = ? ORDER BY position")) {
      p.setLong(1, id);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          joints.add(
              new Joint(
                  once(names, r.getString(1)),
                  once(names, r.getString(2)),
                  once(names, r.getString(3)),
                  r.getDouble(4),
                  r.getDouble(5),
                  Joint.Reach.valueOf(r.getString(6)),
                  r.getBoolean(7),
                  r.getDouble(8),
                  r.getBoolean(9),
                  r.getDouble(10),
                  r.getDouble(11),
                  r.getDouble(12),
                  r.getBoolean(13),
                  r.getInt(14)));
        }
      }
    }
    return joints;
  }

  private static String once(Map<String, String> names, String name) {
    return names.computeIfAbsent(name, n -> n);
  }

  private Outline loadOutline(long id) throws SQLException {
    Map<Integer, List<Outline.Point>> loops = new LinkedHashMap<>();
    try (PreparedStatement p =
        db.prepareStatement(
            "SELECT loop, x, y FROM corner WHERE revision = ? ORDER BY loop, position")) {
      p.setLong(1, id);
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          loops
              .computeIfAbsent(r.getInt(1), _ -> new ArrayList<>())
              .add(new Outline.Point(r.getDouble(2), r.getDouble(3)));
        }
      }
    }
    return new Outline(List.copyOf(loops.values()));
  }

  private static double real(ResultSet r, int column) throws SQLException {
    double d = r.getDouble(column);
    return r.wasNull() ? Double.NaN : d;
  }

  Optional<String> document(String design, String name, String kind) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement("SELECT body FROM document WHERE revision = ? AND kind = ?")) {
      p.setLong(1, id(design, name));
      p.setString(2, kind);
      try (ResultSet r = p.executeQuery()) {
        return r.next() ? Optional.of(r.getString(1)) : Optional.empty();
      }
    }
  }

  Map<String, String> documents(String design, String name) throws SQLException {
    Map<String, String> all = new LinkedHashMap<>();
    try (PreparedStatement p =
        db.prepareStatement("SELECT kind, body FROM document WHERE revision = ? ORDER BY kind")) {
      p.setLong(1, id(design, name));
      try (ResultSet r = p.executeQuery()) {
        while (r.next()) {
          all.put(r.getString(1), r.getString(2));
        }
      }
    }
    return all;
  }

  void document(String design, String name, String kind, String body) throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement(
            "INSERT INTO document VALUES (?,?,?)"
                + " ON CONFLICT (revision, kind) DO UPDATE SET body = excluded.body")) {
      p.setLong(1, id(design, name));
      p.setString(2, kind);
      p.setString(3, body);
      p.executeUpdate();
    }
  }

  long build(
      String design,
      String name,
      String method,
      String alloy,
      String variant,
      String at,
      List<String> serials)
      throws SQLException {
    try (PreparedStatement p =
        db.prepareStatement(
            "INSERT INTO build (revision, method, alloy, made, variant) VALUES (?,?,?,?,?)")) {
      p.setLong(1, id(design, name));
      p.setString(2, method);
      p.setString(3, alloy);
      p.setString(4, at);
      p.setString(5, variant);
      p.executeUpdate();
    }
    long build;
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT max(id) FROM build")) {
      r.next();
      build = r.getLong(1);
    }
    try (PreparedStatement p = db.prepareStatement("INSERT INTO board VALUES (?,?,?)")) {
      for (int i = 0; i < serials.size(); i++) {
        p.setString(1, serials.get(i));
        p.setLong(2, build);
        p.setInt(3, i);
        p.addBatch();
      }
      p.executeBatch();
    }
    return build;
  }

  List<Build> builds() throws SQLException {
    Map<Long, List<String>> boards = new LinkedHashMap<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("SELECT build, serial FROM board ORDER BY build, position")) {
      while (r.next()) {
        boards.computeIfAbsent(r.getLong(1), _ -> new ArrayList<>()).add(r.getString(2));
      }
    }
    List<Build> found = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r =
            s.executeQuery(
                "SELECT b.id, r.design, r.name, b.method, b.alloy, b.variant FROM build b JOIN revision r ON r.id = b.revision ORDER BY b.id")) {
      while (r.next()) {
        found.add(
            new Build(
                r.getLong(1),
                r.getString(2),
                r.getString(3),
                r.getString(4),
                r.getString(5),
                r.getString(6),
                boards.getOrDefault(r.getLong(1), List.of())));
      }
    }
    return List.copyOf(found);
  }
}
