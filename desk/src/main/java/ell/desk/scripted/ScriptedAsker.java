package ell.desk.scripted;

import ell.desk.shell.FileAsker;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/// Answers to questions for files that were written down beforehand, for running without a monitor.
public final class ScriptedAsker implements FileAsker {
  public volatile Optional<Path> workspace = Optional.empty();
  public volatile List<Path> files = List.of();
  public volatile Optional<Path> record = Optional.empty();
  public volatile List<Path> shelf = List.of();
  public volatile Optional<Path> labels = Optional.empty();
  public volatile Optional<Path> folder = Optional.empty();
  public volatile Optional<Path> log = Optional.empty();
  public volatile Optional<Path> photograph = Optional.empty();
  public volatile Optional<Path> capture = Optional.empty();
  public volatile Optional<Path> script = Optional.empty();

  @Override
  public Optional<Path> workspaceToOpen() {
    return workspace;
  }

  @Override
  public Optional<Path> workspaceToMake() {
    return workspace;
  }

  @Override
  public List<Path> revisionFiles() {
    return files;
  }

  @Override
  public Optional<Path> record(String board) {
    return record;
  }

  @Override
  public List<Path> shelfFiles() {
    return shelf;
  }

  @Override
  public Optional<Path> labels() {
    return labels;
  }

  @Override
  public Optional<Path> profileLog() {
    return log;
  }

  @Override
  public Optional<Path> capture() {
    return capture;
  }

  @Override
  public Optional<Path> script() {
    return script;
  }

  @Override
  public Optional<Path> photograph() {
    return photograph;
  }

  @Override
  public Optional<Path> folder(String what) {
    return folder;
  }
}
