-- +goose Up
-- The glossary is kept with what else is said by hand.
CREATE TABLE said (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    kind     TEXT NOT NULL CHECK (kind IN ('role', 'origin', 'feature', 'purpose', 'rename', 'rule', 'gap', 'link', 'word', 'term', 'instead')),
    target   TEXT NOT NULL,
    value    TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, kind, target)
) WITHOUT ROWID;
INSERT INTO said (codebase, kind, target, value, at, by) SELECT codebase, kind, target, value, at, by FROM overrules;
DROP TABLE overrules;
ALTER TABLE said RENAME TO overrules;
