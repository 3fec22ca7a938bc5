-- +goose Up
CREATE TABLE codebases (
    id       INTEGER PRIMARY KEY,
    name     TEXT NOT NULL,
    kind     TEXT NOT NULL CHECK (kind IN ('folder', 'git', 'archive')),
    path     TEXT NOT NULL,
    revision TEXT NOT NULL DEFAULT '',
    created  INTEGER NOT NULL,
    -- Raised by every change of its review, for ETags.
    touched  INTEGER NOT NULL DEFAULT 0,
    UNIQUE (path, revision)
);

CREATE TABLE briefs (
    codebase INTEGER PRIMARY KEY REFERENCES codebases (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL,
    brief    TEXT NOT NULL CHECK (json_valid(brief)),
    changed  INTEGER NOT NULL
);

CREATE TABLE surveys (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    state    TEXT NOT NULL CHECK (state IN ('running', 'finished', 'failed', 'cancelled', 'interrupted')),
    started  INTEGER NOT NULL,
    ended    INTEGER,
    revision TEXT NOT NULL DEFAULT '',
    problem  TEXT NOT NULL DEFAULT '',
    files    INTEGER NOT NULL DEFAULT 0,
    lines    INTEGER NOT NULL DEFAULT 0,
    seconds  REAL NOT NULL DEFAULT 0
);
CREATE INDEX surveys_by_codebase ON surveys (codebase, id DESC);

CREATE TABLE findings (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    codebase   INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL,
    kind       TEXT NOT NULL CHECK (kind IN ('redo', 'fix', 'improve', 'taste', 'ask', 'keep')),
    state      TEXT NOT NULL CHECK (state IN ('noted', 'agreed', 'doing', 'done', 'dropped')),
    title      TEXT NOT NULL,
    text       TEXT NOT NULL,
    assignee   TEXT NOT NULL,
    labels     TEXT NOT NULL CHECK (json_valid(labels)),
    position   REAL NOT NULL,
    path       TEXT NOT NULL,
    definition TEXT NOT NULL,
    line       INTEGER NOT NULL,
    end_line   INTEGER NOT NULL,
    survey     INTEGER REFERENCES surveys (id) ON DELETE SET NULL,
    hash       TEXT NOT NULL,
    quote      TEXT NOT NULL,
    smell      TEXT NOT NULL,
    rule       TEXT NOT NULL,
    evidence   TEXT NOT NULL CHECK (json_valid(evidence)),
    created    INTEGER NOT NULL,
    author     TEXT NOT NULL,
    updated    INTEGER NOT NULL,
    deleted    INTEGER NOT NULL DEFAULT 0
);
CREATE INDEX findings_by_place ON findings (codebase, path);

CREATE TABLE finding_changes (
    finding INTEGER NOT NULL REFERENCES findings (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,
    at      INTEGER NOT NULL,
    by      TEXT NOT NULL,
    field   TEXT NOT NULL,
    old     TEXT NOT NULL,
    new     TEXT NOT NULL,
    PRIMARY KEY (finding, version, field)
) WITHOUT ROWID;

CREATE TABLE read_marks (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    path     TEXT NOT NULL,
    hash     TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, path)
) WITHOUT ROWID;

CREATE TABLE silences (
    codebase INTEGER NOT NULL REFERENCES codebases (id) ON DELETE CASCADE,
    smell    TEXT NOT NULL,
    reason   TEXT NOT NULL,
    at       INTEGER NOT NULL,
    by       TEXT NOT NULL,
    PRIMARY KEY (codebase, smell)
) WITHOUT ROWID;

CREATE TABLE settings (
    key   TEXT PRIMARY KEY,
    value TEXT NOT NULL CHECK (json_valid(value))
) WITHOUT ROWID;
