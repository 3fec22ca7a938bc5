package survey

import (
	"path"
	"strings"
	"testing"

	"github.com/go-enry/go-enry/v2"
	"github.com/go-enry/go-enry/v2/data"
	"github.com/stretchr/testify/require"
)

// TestLanguagesAreNamedAsTheLibraryNamesThem goes through all it knows: a new
// version of it makes the table be made again.
func TestLanguagesAreNamedAsTheLibraryNamesThem(t *testing.T) {
	want := func(p string) string {
		if n, only := enry.GetLanguageByFilename(path.Base(p)); only && n != "" {
			return n
		}
		n, _ := enry.GetLanguageByExtension(path.Base(p))
		return n
	}
	names := []string{"", "seed", "Makefile", "a.b/README", "box.unknown", "lot.html.erb", "LOT.PY", ".gitignore", "x.tar.gz", "Dockerfile.dev", "größe.rs"}
	for n := range data.LanguagesByFilename {
		names = append(names, "desk/"+n)
	}
	for e := range data.LanguagesByExtension {
		names = append(names, "lot"+e, "a.b"+strings.ToUpper(e))
	}
	for _, n := range names {
		require.Equal(t, want(n), commonName(n), n)
	}
	require.Greater(t, len(names), 1500)
}
