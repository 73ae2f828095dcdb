package ell.book;

/// Somebody who may come to a workspace on a server.
///
/// @param role `maker`, `helper`, `reader`, or `owner` of who made it
public record Person(String name, String role) {}
