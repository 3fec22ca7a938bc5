-- +goose Up
-- Who wrote a file is said by hand as well; what was a role of its own for it is
-- brought over.
CREATE TABLE said (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    kind     TEXT NOT NULL CHECK (kind IN ('role', 'origin', 'feature', 'purpose', 'rename', 'link', 'word')),
    target   TEXT NOT NULL,
    value    TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, kind, target)
) WITHOUT ROWID;
INSERT INTO said (codebase, kind, target, value, at, by)
    SELECT codebase, CASE WHEN kind = 'role' AND value = 'generated' THEN 'origin' ELSE kind END, target, value, at, by
    FROM overrules WHERE NOT (kind = 'word' AND value = 'generated');
DROP TABLE overrules;
ALTER TABLE said RENAME TO overrules;
