package store_test

import (
	"context"
	"testing"

	"jantel/core/source"
	"jantel/core/survey"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

func TestStampsComeBackForTheirSourceAlone(t *testing.T) {
	ctx := context.Background()
	facts, err := store.OpenFacts(ctx, t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, facts.Close()) }()
	folder := map[string]survey.Stamped{
		"src/lot.ts":   {Hash: "a1", Stamp: source.Stamp{Size: 12, MTime: 1_700_000_000_000_000_001, CTime: 1_700_000_000_000_000_002, Inode: 1<<63 + 5}},
		"größe/%FF.py": {Hash: "b2", Stamp: source.Stamp{Size: 0, MTime: -1}},
	}
	blobs := map[string]survey.Stamped{"0123abcd": {Hash: "c3", Stamp: source.Stamp{Blob: "0123abcd"}}}
	require.NoError(t, facts.SaveStamps(ctx, "folder:/a", folder))
	require.NoError(t, facts.SaveStamps(ctx, "git:/a", blobs))
	require.Equal(t, folder, facts.Stamps(ctx, "folder:/a"))
	require.Equal(t, blobs, facts.Stamps(ctx, "git:/a"))
	require.Empty(t, facts.Stamps(ctx, "folder:/b"))
	require.NoError(t, facts.SaveStamps(ctx, "folder:/a", blobs))
	require.Equal(t, blobs, facts.Stamps(ctx, "folder:/a"), "what is saved later takes the place of all before")
}
