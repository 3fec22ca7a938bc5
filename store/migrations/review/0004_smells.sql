-- +goose Up
-- The id of a smell changes when its rule does: what it was about is kept
-- beside, so that a silence and a finding still know their smell afterwards.
ALTER TABLE silences ADD COLUMN rule TEXT NOT NULL DEFAULT '';
ALTER TABLE silences ADD COLUMN path TEXT NOT NULL DEFAULT '';
ALTER TABLE silences ADD COLUMN name TEXT NOT NULL DEFAULT '';
ALTER TABLE findings ADD COLUMN smell_path TEXT NOT NULL DEFAULT '';
ALTER TABLE findings ADD COLUMN smell_name TEXT NOT NULL DEFAULT '';
UPDATE findings SET smell_path = path, smell_name = definition WHERE smell <> '';
