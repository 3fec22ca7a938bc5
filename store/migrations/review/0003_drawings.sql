-- +goose Up
-- How a hand put the boxes of a drawing: their paths from the left.
CREATE TABLE arrangements (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    place    TEXT NOT NULL,
    boxes    TEXT NOT NULL CHECK (json_valid(boxes)),
    PRIMARY KEY (codebase, place)
) WITHOUT ROWID;

-- Dependencies that the lead declares are kept with what else is said by hand.
CREATE TABLE said (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    kind     TEXT NOT NULL CHECK (kind IN ('role', 'feature', 'purpose', 'rename', 'link', 'word')),
    target   TEXT NOT NULL,
    value    TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, kind, target)
) WITHOUT ROWID;
INSERT INTO said (codebase, kind, target, value, at, by) SELECT codebase, kind, target, value, at, by FROM overrules;
DROP TABLE overrules;
ALTER TABLE said RENAME TO overrules;
