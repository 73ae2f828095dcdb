-- which boards have something about errata in their book: asked whenever a plan is made, of workspaces
-- with a million entries too
CREATE INDEX entry_of_errata ON entry (board) WHERE instr(body, '"kind":"erratum') > 0;

PRAGMA user_version = 5;
