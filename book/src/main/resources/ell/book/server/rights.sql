-- Who may do what, held by the server: run as the owner, each time a workspace is made or brought up to date.
GRANT USAGE ON SCHEMA ell TO ell_reader, ell_helper, ell_maker;
GRANT SELECT ON ALL TABLES IN SCHEMA ell TO ell_reader, ell_helper, ell_maker;
GRANT SELECT ON ALL SEQUENCES IN SCHEMA ell TO ell_reader, ell_helper, ell_maker;
GRANT EXECUTE ON FUNCTION instr(TEXT, TEXT), held_by_other(TEXT, TEXT) TO ell_reader, ell_helper, ell_maker;
GRANT EXECUTE ON FUNCTION take_in_hand(TEXT, TEXT, INTEGER), lay_down(TEXT, TEXT),
  hand_over(TEXT, TEXT, INTEGER, TEXT), keep_file(TEXT, TEXT, BYTEA),
  append(TEXT, INTEGER, UUID[], TEXT[], TEXT[], TEXT[], BIGINT[]) TO ell_helper, ell_maker;
GRANT INSERT ON anchor TO ell_helper, ell_maker;
GRANT INSERT, UPDATE, DELETE ON revision, part, joint, corner, document, build, board, shelf, parameter, keepsake
  TO ell_maker;
GRANT INSERT ON seal TO ell_maker;
GRANT USAGE ON ALL SEQUENCES IN SCHEMA ell TO ell_maker;
REVOKE USAGE, UPDATE ON SEQUENCE entry_number FROM ell_maker;
