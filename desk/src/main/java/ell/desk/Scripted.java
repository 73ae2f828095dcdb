package ell.desk;

import ell.desk.window.FileAsker;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;



/// Answers to questions for files that were written down beforehand, for running without a monitor.
final class Scripted implements FileAsker {
  volatile Optional<Path> workspace = Optional.empty();
  volatile List<Path> files = List.of();
  volatile Optional<Path> record = Optional.empty();
  volatile List<Path> shelf = List.of();
  volatile Optional<Path> labels = Optional.empty();
  volatile Optional<Path> folder = Optional.empty();
  volatile Optional<Path> log = Optional.empty();
  volatile Optional<Path> photograph = Optional.empty();

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
  public Optional<Path> photograph() {
    return photograph;
  }

  @Override
  public Optional<Path> folder(String what) {
    return folder;
  }
}
